import { z } from 'zod';
import { idSchema, nameSchema, proseSchema, studyParams, textSchema, uuidSchema } from '../ids.js';

/** A drawing of codes and themes, laid out and joined by hand. */
export const codeMapSchema = z
  .object({ id: uuidSchema, studyId: idSchema, name: nameSchema, position: z.number().int() })
  .meta({ id: 'CodeMap' });
export type CodeMap = z.infer<typeof codeMapSchema>;

const FURTHEST = 100_000;
const coordinateSchema = z.number().int().min(-FURTHEST).max(FURTHEST);

/** A code or a theme on a map. */
export const mapNodeSchema = z
  .object({
    id: uuidSchema,
    mapId: uuidSchema,
    /** One of the two. */
    codeId: uuidSchema.nullable(),
    themeId: uuidSchema.nullable(),
    /** Its upper left corner, in pixels. */
    x: coordinateSchema,
    y: coordinateSchema,
  })
  .refine(
    ({ codeId, themeId }) => (codeId === null) !== (themeId === null),
    'A node is a code or a theme.',
  )
  .meta({ id: 'MapNode' });
export type MapNode = z.infer<typeof mapNodeSchema>;

/** How two nodes are related, in the words of who joined them. */
export const mapRelationSchema = z
  .object({
    id: uuidSchema,
    mapId: uuidSchema,
    fromNode: uuidSchema,
    toNode: uuidSchema,
    label: textSchema.trim().max(60),
    directed: z.boolean(),
    note: proseSchema,
  })
  .refine(({ fromNode, toNode }) => fromNode !== toNode, 'A relation joins two nodes.')
  .meta({ id: 'MapRelation' });
export type MapRelation = z.infer<typeof mapRelationSchema>;

/** An answer, or a passage of it, pinned to a node or a relation. */
export const mapPinSchema = z
  .object({
    id: uuidSchema,
    mapId: uuidSchema,
    /** One of the two. */
    nodeId: uuidSchema.nullable(),
    relationId: uuidSchema.nullable(),
    responseId: idSchema,
    /** The passage, in UTF-16 units; null for the whole answer. */
    start: z.number().int().min(0).nullable(),
    end: z.number().int().min(1).nullable(),
  })
  .refine(
    ({ nodeId, relationId }) => (nodeId === null) !== (relationId === null),
    'An answer is pinned to a node or to a relation.',
  )
  .refine(
    ({ start, end }) => (start === null) === (end === null) && (end ?? 1) > (start ?? 0),
    'A passage has a start and an end behind it.',
  )
  .meta({ id: 'MapPin' });
export type MapPin = z.infer<typeof mapPinSchema>;

export const codeMapsSchema = z
  .object({ maps: z.array(codeMapSchema.extend({ nodes: z.number().int() })) })
  .meta({ id: 'CodeMaps' });
export type CodeMaps = z.infer<typeof codeMapsSchema>;

/** What of a map is there to be seen: codes that are gone are not. */
export const drawnMapSchema = codeMapSchema
  .extend({
    nodes: z.array(mapNodeSchema),
    relations: z.array(mapRelationSchema),
    pins: z.array(
      z.object({
        ...mapPinSchema.shape,
        questionId: idSchema,
        /** What is pinned, word for word. */
        text: z.string(),
      }),
    ),
  })
  .meta({ id: 'DrawnMap' });
export type DrawnMap = z.infer<typeof drawnMapSchema>;

const MOST_AT_ONCE = 1000;
const atOnce = <Item extends z.ZodType>(item: Item) => z.array(item).max(MOST_AT_ONCE).default([]);
/** What becomes of a map: records made or changed, and records removed with all that hangs on them. */
export const mapChangeSchema = z.object({
  nodes: atOnce(mapNodeSchema),
  relations: atOnce(mapRelationSchema),
  pins: atOnce(mapPinSchema),
  removed: atOnce(uuidSchema),
});
export type MapChange = z.infer<typeof mapChangeSchema>;

export const mapParams = studyParams.extend({ map: uuidSchema });
export const mapNameSchema = z.object({ name: nameSchema });
export const mapFileParams = mapParams.extend({ format: z.enum(['graphml', 'csv']) });
export type MapFormat = z.infer<typeof mapFileParams>['format'];
