import { z } from 'zod';
import { idSchema, uuidSchema } from '../ids.js';

/** A change of the study as its history lists it. */
export const changeSchema = z
  .object({
    id: idSchema,
    /** What was done, in words that follow a name: "the merge of …". */
    summary: z.string(),
    by: z.string(),
    madeAt: z.iso.datetime(),
    undone: z.boolean(),
    /** How many records of each kind it touched. */
    touched: z.record(z.string(), z.number().int()),
  })
  .meta({ id: 'Change' });
export type Change = z.infer<typeof changeSchema>;

export const historyQuery = z.object({
  /** Only changes that are about this code. */
  code: uuidSchema.optional(),
  /** Only what this person did. */
  by: idSchema.optional(),
  before: idSchema.optional(),
  limit: z.coerce.number().int().min(1).max(200).default(50),
});
export const historySchema = z.object({
  changes: z.array(changeSchema),
  /** The `before` of the next page; null at the end. */
  next: z.number().int().nullable(),
});

/** What was undone or redone, in words. */
export const undoneSchema = z.object({ summary: z.string() });

/** What everybody who has the study open is notified of. */
export const studyEventSchema = z.object({
  /** The study that it happened to; 0 where anything may have happened to any. */
  study: z.number().int(),
  /** Whose tab did it; null where no tab did. */
  tab: z.string().nullable(),
  by: z.number().int(),
  /** Kinds of records that changed. */
  tables: z.array(z.string()),
  /** The answers it is about; null for any. */
  responses: z.array(z.number().int()).nullable(),
});
export type StudyEvent = z.infer<typeof studyEventSchema>;
