import { z } from 'zod';
import { codeCreateSchema } from './codebook.js';
import { idSchema, pageQuery, valueSchema, proseSchema, studyParams, uuidSchema } from './ids.js';

/**
 * How a mention came about: by hand, by accepting a suggestion after reading it or in bulk, or with a sheet
 * that was coded before.
 */
export const originSchema = z.enum(['hand', 'accepted', 'bulk', 'import']);
export type Origin = z.infer<typeof originSchema>;

export const mentionSchema = z
  .object({
    id: uuidSchema,
    responseId: idSchema,
    codeId: uuidSchema,
    coderId: idSchema,
    /** The passage in UTF-16 units, end exclusive; null for the whole answer. */
    start: z.number().int().min(0).nullable(),
    end: z.number().int().min(1).nullable(),
    origin: originSchema,
    createdAt: z.iso.datetime(),
  })
  .meta({ id: 'Mention' });
export type Mention = z.infer<typeof mentionSchema>;

export const mentionCreateSchema = z
  .object({
    id: uuidSchema,
    responseId: idSchema,
    codeId: uuidSchema,
    start: z.number().int().min(0).nullable(),
    end: z.number().int().min(1).nullable(),
    /** A code that is made in the same stroke. */
    newCode: codeCreateSchema.optional(),
  })
  .refine(
    ({ start, end }) => (start === null ? end === null : end !== null && start < end),
    'A passage needs a start before its end, or neither.',
  );
export type MentionCreate = z.infer<typeof mentionCreateSchema>;

/** That somebody decided the codes of a response. */
export const settlementSchema = z
  .object({ responseId: idSchema, coderId: idSchema, settledAt: z.iso.datetime() })
  .meta({ id: 'Settlement' });
export type Settlement = z.infer<typeof settlementSchema>;
export const settleSchema = z.object({ settled: z.boolean() });

/** A response as the ledger shows it. */
export const ledgerAnswerSchema = z
  .object({
    id: idSchema,
    respondentId: idSchema,
    externalId: z.string(),
    background: z.record(z.string(), valueSchema.nullable()),
    text: z.string(),
    noAnswer: z.boolean(),
    /** Its text was corrected after it was coded: it is to be looked at again. */
    changed: z.boolean(),
    inSample: z.boolean(),
    settled: z.boolean(),
    mentions: z.array(mentionSchema),
  })
  .meta({ id: 'LedgerAnswer' });
export type LedgerAnswer = z.infer<typeof ledgerAnswerSchema>;

export const ledgerShowSchema = z.enum([
  'all',
  'open',
  'settled',
  'sample',
  'changed',
  'no_answer',
]);
export type LedgerShow = z.infer<typeof ledgerShowSchema>;

export const ledgerQuery = pageQuery.extend({
  show: ledgerShowSchema.default('all'),
  /** Only answers that hold these words. */
  words: proseSchema.default(''),
});

export const ledgerPageSchema = z
  .object({
    answers: z.array(ledgerAnswerSchema),
    /** How many there are in all; told with the first page only. */
    total: z.number().int().nullable(),
    next: z.string().nullable(),
  })
  .meta({ id: 'LedgerPage' });
export type LedgerPage = z.infer<typeof ledgerPageSchema>;

export const mentionParams = studyParams.extend({ mention: uuidSchema });
export const responseParams = studyParams.extend({ response: idSchema });

/** What was undone or redone, in words. */
export const undoneSchema = z.object({ summary: z.string() });
