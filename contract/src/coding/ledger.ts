import { z } from 'zod';
import { codeCreateSchema } from '../codebook/records.js';
import { lineCutSchema, mentionSchema } from './records.js';
import { ruleTextSchema, withinQuery } from '../groups/records.js';
import {
  idListSchema,
  idSchema,
  LARGEST_ID,
  longIdsSchema,
  textSchema,
  uuidSchema,
  valueSchema,
} from '../ids.js';
import { shownNoteSchema } from '../notes/records.js';

/** Which answers are shown: of what state. */
export const ledgerShowSchema = z.enum([
  'all',
  'unread',
  'open',
  'settled',
  'sample',
  'sample_open',
  'suggested',
  'nothing_likely',
  'disputed',
  'unsure',
  'marked',
  'changed',
  'no_answer',
]);
export type LedgerShow = z.infer<typeof ledgerShowSchema>;

export const ledgerOrderSchema = z.enum([
  'imported',
  'random',
  'longest',
  'shortest',
  'similar',
  'telling',
  'surest',
  'likely',
  'resembling',
]);
export type LedgerOrder = z.infer<typeof ledgerOrderSchema>;

/** How words are looked for: as written anywhere, as whole words, in any form, or with * and ?. */
export const wordMatchSchema = z.enum(['plain', 'word', 'stem', 'wildcard', 'line', 'any']);
export type WordMatch = z.infer<typeof wordMatchSchema>;

/** A background variable and the value that it must have, as `12:Tye`; nothing after the colon for "not stated". */
const whereSchema = z
  .string()
  .regex(/^\d{1,10}:/u)
  .max(400)
  .transform((text) => {
    const colon = text.indexOf(':');
    return { variableId: Number(text.slice(0, colon)), value: text.slice(colon + 1) };
  });

/** The whole filter stands in the address, so that it can be kept and passed on. */
export const ledgerQuery = withinQuery.extend({
  show: ledgerShowSchema.default('all'),
  words: textSchema.max(1000).default(''),
  match: wordMatchSchema.default('plain'),
  /** Codes of which all must be there, one must be there, none may be there. */
  all: idListSchema,
  any: idListSchema,
  none: idListSchema,
  /** Whether the codes must meet in one line. */
  together: z.enum(['answer', 'line']).default('answer'),
  /** Groups that the respondent belongs to, all of them. */
  among: idListSchema,
  /** Only answers that were gathered and decided about together. */
  cluster: uuidSchema.optional(),
  /** Only respondents whom this rule picks. */
  of: ruleTextSchema.optional(),
  /** Only what this person coded or settled. */
  coder: idSchema.optional(),
  /** Only what is assigned to this person. */
  assigned: idSchema.optional(),
  where: z.union([whereSchema.transform((one) => [one]), z.array(whereSchema).max(20)]).default([]),
  /** Only open answers that the current run thinks are likely about this theme. */
  about: uuidSchema.optional(),
  /** The code whose definition and examples the answers are compared with, in the order `resembling`. */
  code: uuidSchema.optional(),
  /** Only answers of the same words as this one. */
  like: idSchema.optional(),
  order: ledgerOrderSchema.default('imported'),
  seed: z.coerce.number().int().min(0).max(2_147_483_647).default(1),
  /** Whether answers of the same words stand as one. */
  same: z.enum(['joined', 'apart']).default('joined'),
});
export type LedgerQuery = z.infer<typeof ledgerQuery>;

/** Which answers there are, in order; what stands in them is fetched as it comes into view. */
export const ledgerSchema = z
  .object({
    ids: longIdsSchema,
    /** How many answers have the same words as each, listed or not; null when they are listed one by one. */
    counts: z.array(z.number().int()).nullable(),
    /** In the order of similarity: ids of answers that are nearly the same as the one before them. */
    near: z.array(z.number().int()).nullable(),
    /** How many answers there are in all. */
    total: z.number().int(),
  })
  .meta({ id: 'Ledger' });
export type Ledger = z.infer<typeof ledgerSchema>;

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
    /** How others coded it is kept from this person until they have coded it in their second reading. */
    isWithheld: z.boolean(),
    inSample: z.boolean(),
    settled: z.boolean(),
    mentions: z.array(mentionSchema),
    notes: z.array(shownNoteSchema),
    cuts: z.array(lineCutSchema),
    /** What the model thinks likely here and nobody decided yet, most likely first. */
    suggestions: z.array(
      z.object({
        codeId: uuidSchema,
        probability: z.number(),
        /** Whether it lies above its code's line: what is proposed where answers are read one by one. */
        isAbove: z.boolean(),
        /** The words that are the strongest evidence for it. */
        evidence: z.array(z.object({ word: z.string(), weight: z.number() })),
        /** The place of the line that it is for; null for the whole answer. */
        line: z.number().int().nullable(),
      }),
    ),
    /** The models looked at it, and no code reaches its line. */
    nothingLikely: z.boolean(),
  })
  .meta({ id: 'LedgerAnswer' });
export type LedgerAnswer = z.infer<typeof ledgerAnswerSchema>;

export const answersQuery = z.object({
  ids: z
    .string()
    .regex(/^\d{1,10}(?:,\d{1,10}){0,199}$/u)
    .transform((list) => list.split(',').map(Number))
    .pipe(z.array(z.int().max(LARGEST_ID))),
});
export const answersSchema = z.object({ answers: z.array(ledgerAnswerSchema) });

/** The codes of coded answers that are like one, with how much is evidence for each: from 0 to 1, the most first. */
export const nearCodesSchema = z
  .object({ codes: z.array(z.object({ codeId: uuidSchema, share: z.number() })) })
  .meta({ id: 'NearCodes' });
export type NearCodes = z.infer<typeof nearCodesSchema>;

/** What else a respondent wrote. */
export const otherAnswersSchema = z.object({
  answers: z.array(
    z.object({
      id: idSchema,
      questionId: idSchema,
      text: z.string(),
      noAnswer: z.boolean(),
      codeIds: z.array(uuidSchema),
    }),
  ),
  notes: z.array(shownNoteSchema),
});

/** Where words that were looked for stand. */
export const hitSchema = z.object({
  responseId: idSchema,
  start: z.number().int().min(0),
  end: z.number().int().min(1),
});
export type Hit = z.infer<typeof hitSchema>;
export const hitsSchema = z
  .object({
    /** Answers that hold the words, with all hits in each. */
    answers: z.array(
      z.object({
        id: idSchema,
        externalId: z.string(),
        text: z.string(),
        hits: z.array(z.object({ start: z.number().int(), end: z.number().int() })),
        codeIds: z.array(uuidSchema),
      }),
    ),
    /** How many answers and hits there are in all. */
    found: z.object({ answers: z.number().int(), hits: z.number().int() }),
  })
  .meta({ id: 'Hits' });
export type Hits = z.infer<typeof hitsSchema>;

/** Applies a code wherever words were found. */
export const codeHitsSchema = z.object({
  codeId: uuidSchema,
  newCode: codeCreateSchema.optional(),
  /** What the code rests on: the words, the line that they stand in, or the whole answer. */
  on: z.enum(['passage', 'line', 'answer']),
  hits: z.array(hitSchema).min(1).max(20_000),
});
export type CodeHits = z.infer<typeof codeHitsSchema>;
export const codedHitsSchema = z.object({ mentions: z.number().int() });
