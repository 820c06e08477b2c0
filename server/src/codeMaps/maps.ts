import type {
  CodeMap,
  CodeMaps,
  DrawnMap,
  MapNode,
  MapPin,
  MapRelation,
} from '@yellow-thread/contract';
import type { MapContent } from '@yellow-thread/core/codebook';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  asRecord,
  CodeMapEntity,
  MapNodeEntity,
  MapPinEntity,
  MapRelationEntity,
  rows,
} from '../database/index.js';
import { problems } from '../wording/problems.js';

/** A map as it is stored: also what is of codes that are gone. */
export type StoredMap = { map: CodeMap } & MapContent<MapNode, MapRelation, MapPin>;

export async function listMaps(em: EntityManager, studyId: number): Promise<CodeMaps> {
  const maps = await rows<CodeMaps['maps'][number]>(
    em,
    `select m.id, m.study_id as "studyId", m.name, m.position,
       (select count(*)::int from map_node n where n.map_id = m.id and ${isThere}) as nodes
     from code_map m where m.study_id = :studyId order by m.position, m.id`,
    { studyId },
  );
  return { maps };
}

/** Whether the code or theme of a node `n` is in the codebook. */
const isThere = `(exists (select 1 from code c where c.id = n.code_id)
  or exists (select 1 from theme t where t.id = n.theme_id))`;

/** @throws Problem not_found */
export async function findMap(em: EntityManager, studyId: number, id: string): Promise<StoredMap> {
  const map = await em.findOne(CodeMapEntity, { id, studyId });
  if (!map) throw problems.notFound('map');
  const of = { mapId: id };
  const inOrder = { orderBy: { id: 'asc' } } as const;
  const nodes = await em.find(MapNodeEntity, of, inOrder);
  const relations = await em.find(MapRelationEntity, of, inOrder);
  const pins = await em.find(MapPinEntity, of, inOrder);
  return {
    map: asRecord('code_map', map),
    nodes: nodes.map((one) => asRecord('map_node', one)),
    relations: relations.map((one) => asRecord('map_relation', one)),
    pins: pins.map((one) => asRecord('map_pin', one)),
  };
}

/** A map as it is drawn: without codes and themes that are gone, and what joined them. */
export async function readMap(em: EntityManager, studyId: number, id: string): Promise<DrawnMap> {
  const { map, nodes, relations, pins } = await findMap(em, studyId, id);
  const there = await rows<{ id: string }>(
    em,
    `select n.id from map_node n where n.map_id = :id and ${isThere}`,
    { id },
  );
  const isNode = new Set(there.map((node) => node.id));
  const drawn = relations.filter(
    ({ fromNode, toNode }) => isNode.has(fromNode) && isNode.has(toNode),
  );
  const isRelation = new Set(drawn.map((relation) => relation.id));
  const texts = await rows<{ id: string; questionId: number; text: string }>(
    em,
    `select p.id, r.question_id as "questionId", r.text
     from map_pin p join response r on r.id = p.response_id where p.map_id = :id`,
    { id },
  );
  const answerOf = new Map(texts.map((answer) => [answer.id, answer]));
  return {
    ...map,
    nodes: nodes.filter((node) => isNode.has(node.id)),
    relations: drawn,
    pins: pins.flatMap((pin) => {
      const answer = answerOf.get(pin.id);
      const hangs = pin.nodeId === null ? isRelation.has(pin.relationId!) : isNode.has(pin.nodeId);
      if (!answer || !hangs) return [];
      const { questionId, text } = answer;
      return [{ ...pin, questionId, text: text.slice(pin.start ?? 0, pin.end ?? text.length) }];
    }),
  };
}
