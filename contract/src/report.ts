import { z } from 'zod';
import { ruleSchema, withinQuery } from './groups.js';
import {
  flagSchema,
  idListSchema,
  idSchema,
  intervalSchema,
  pageQuery,
  questionParams,
  studyParams,
  uuidSchema,
} from './ids.js';
import { estimatedShareSchema } from './learning.js';
import { ledgerAnswerSchema } from './ledger.js';

/** What a percentage is out of: people who are settled, who answered, who were asked; or everything mentioned. */
export const baseKindSchema = z.enum(['settled', 'answered', 'asked', 'mentions']);
export type BaseKind = z.infer<typeof baseKindSchema>;

/** How differences between columns are corrected for their number; `off` for no tests. */
export const correctionSchema = z.enum(['holm', 'benjamini_hochberg', 'none', 'off']);
export type CorrectionChoice = z.infer<typeof correctionSchema>;

/**
 * What stands across: nothing but the total, the questions, saved groups, waves, coders, single respondents; or the
 * values of a background variable by its id, or of two, those of the second within those of the first.
 */
export const acrossSchema = z
  .string()
  .regex(/^(?:none|question|groups|wave|coder|respondent|\d{1,10}(?:,\d{1,10})?)$/u);
export const rowKindSchema = z.enum(['book', 'themes', 'codes', 'bundles']);
export type RowKind = z.infer<typeof rowKindSchema>;
export const rowOrderSchema = z.enum(['frequency', 'book', 'name', 'difference']);
export type RowOrder = z.infer<typeof rowOrderSchema>;
export const levelSchema = z.enum(['90', '95', '99']);

/** Which figures are wanted; the whole choice stands in the address, so that it can be kept and passed on. */
/** Decimals of percentages: as the base can bear them (none under 100, one above), or so many. */
const decimalsSchema = z.enum(['fitting', '0', '1', '2']).default('fitting');
export const reportQuery = withinQuery.extend({
  by: acrossSchema.default('none'),
  /** Which groups stand across, in this order; none for all of them. */
  groups: idListSchema,
  /** Whether a person counts who mentions it in this question, or in any. */
  questions: z.enum(['one', 'all']).default('one'),
  base: baseKindSchema.default('settled'),
  weighted: flagSchema.default(false),
  test: correctionSchema.default('holm'),
  level: levelSchema.default('95'),
  /** Whether columns are compared with each other, or each with everyone else. */
  against: z.enum(['each', 'rest']).default('each'),
  rows: rowKindSchema.default('book'),
  /** Ids of the codes, themes or bundles that are rows; none for all. */
  chosen: idListSchema,
  order: rowOrderSchema.default('frequency'),
  /** Places of two columns whose difference is wanted, the first less the second: "2-1". */
  difference: z
    .string()
    .regex(/^\d{1,2}-\d{1,2}$/u)
    .optional(),
  /** Whether estimates stand beside what is counted. */
  estimated: flagSchema.default(false),
  decimals: decimalsSchema,
});
export type ReportQuery = z.infer<typeof reportQuery>;

const baseSchema = z.object({
  people: z.number().int(),
  weighted: z.number(),
  effective: z.number(),
});
export const reportCellSchema = z.object({
  people: z.number().int(),
  weighted: z.number(),
  mentions: z.number().int(),
  weightedMentions: z.number(),
  base: baseSchema,
  share: z.number().nullable(),
  interval: intervalSchema.nullable(),
  /** Letters of the columns whose share is lower beyond chance. */
  exceeds: z.array(z.string()),
  /** How it stands to everyone else, where that is asked for and is beyond chance. */
  rest: z.enum(['higher', 'lower']).nullable(),
  /** Of all who answered, where that is asked for and enough of the random sample are in the column. */
  estimated: estimatedShareSchema.extend({ sampleShare: z.number() }).nullable().default(null),
});
export type ReportCell = z.infer<typeof reportCellSchema>;

export const reportColumnSchema = z.object({
  key: z.string(),
  label: z.string(),
  /** What it is called together with its neighbours, where a second variable stands within a first. */
  under: z.string().nullable(),
  /** What the column is called in tests; null for one that is not compared. */
  letter: z.string().nullable(),
  /** Who stands in it, as a rule that a group can be made of; null for everybody, and for what is no group. */
  rule: ruleSchema.nullable(),
  asked: z.number().int(),
  answered: z.number().int(),
  settled: z.number().int(),
  settledWeighted: z.number(),
  settledEffective: z.number(),
});

export const reportRowSchema = z.object({
  kind: z.enum(['theme', 'code', 'bundle']),
  id: uuidSchema,
  /** The theme or bundle that the row stands under; null for one that stands by itself. */
  parentId: uuidSchema.nullable(),
  name: z.string(),
  /** True when suggestions of this code are decided for every answer, not only the settled ones. */
  decidedForAll: z.boolean(),
  cells: z.array(reportCellSchema),
  /** Whether the share differs between the columns at all. */
  whole: z
    .object({
      test: z.enum(['chi_square', 'rao_scott']),
      value: z.number(),
      degrees: z.array(z.number()),
      p: z.number(),
      /** Cramér's V. */
      strength: z.number(),
    })
    .nullable(),
  difference: z
    .object({
      value: z.number(),
      interval: intervalSchema,
      test: z.enum(['z', 'fisher', 'rao_scott']),
      p: z.number(),
    })
    .nullable(),
});
export type ReportRow = z.infer<typeof reportRowSchema>;

export const reportSchema = z
  .object({
    columns: z.array(reportColumnSchema),
    rows: z.array(reportRowSchema),
    /** Columns that have respondents in common, and so cannot be compared with each other. */
    overlapping: z.array(z.tuple([z.string(), z.string()])),
    /**
     * Where the counted mentions come from; `waiting` are mentions on answers that are not settled, of
     * codes that still have open suggestions: they are not counted yet.
     */
    origins: z.object({
      hand: z.number().int(),
      accepted: z.number().int(),
      bulk: z.number().int(),
      import: z.number().int(),
      words: z.number().int(),
      waiting: z.number().int(),
    }),
    /** Spot checks of what was accepted in bulk: read, and to how many of them the code applies; null for none. */
    checked: z
      .object({ read: z.number().int(), applies: z.number().int(), interval: intervalSchema })
      .nullable(),
    weighted: z.boolean(),
    base: baseKindSchema,
    test: correctionSchema,
    level: z.number(),
    against: z.enum(['each', 'rest']),
    decimals: decimalsSchema,
    /** What the estimates rest on, a question each: how many were drawn at random, of how many, and by which training. */
    estimatedFrom: z
      .array(
        z.object({
          sampled: z.number().int(),
          answers: z.number().int(),
          trainedAt: z.string(),
        }),
      )
      .default([]),
    /** Why the estimates that were asked for are not there; null where they are. */
    notEstimated: z.string().nullable(),
  })
  .meta({ id: 'Report' });
export type Report = z.infer<typeof reportSchema>;

/** Where two codes must meet. */
const inOneSchema = z.enum(['answer', 'line']).default('answer');

/** Which answers stand behind a number: a row (code, theme or bundle) in a column. */
export const behindQuery = reportQuery
  .pick({ group: true, by: true, groups: true, questions: true })
  .extend({
    ...pageQuery.shape,
    row: uuidSchema,
    column: z.string().max(1100).default('total'),
    /** Another code that must be there too: in the same answer, or in one line of a settled answer. */
    with: uuidSchema.optional(),
    inOne: inOneSchema,
    words: z.string().max(200).default(''),
  });
export type BehindQuery = z.infer<typeof behindQuery>;
export const behindSchema = z
  .object({
    answers: z.array(ledgerAnswerSchema.extend({ questionId: idSchema })),
    total: z.number().int(),
    people: z.number().int(),
    next: z.string().nullable(),
  })
  .meta({ id: 'AnswersBehind' });
export type AnswersBehind = z.infer<typeof behindSchema>;

/** Codes that occur together: in one answer, or in one line of it. */
export const togetherQuery = withinQuery.extend({
  inOne: inOneSchema,
});
export type TogetherQuery = z.infer<typeof togetherQuery>;
export const togetherSchema = z
  .object({
    /** Answers (or lines) that are decided for all of the codes shown. */
    codes: z.array(
      z.object({
        id: uuidSchema,
        name: z.string(),
        /** Of how many answers or lines, and in how many it is mentioned. */
        n: z.number().int(),
        found: z.number().int(),
        /** With each of the other codes, in the same order; null with itself. */
        cells: z.array(
          z
            .object({
              both: z.number().int(),
              jaccard: z.number().nullable(),
              phi: z.number().nullable(),
              lift: z.number().nullable(),
            })
            .nullable(),
        ),
      }),
    ),
  })
  .meta({ id: 'Together' });
export type CodesTogether = z.infer<typeof togetherSchema>;

export const reportFormatSchema = z.enum(['csv', 'xlsx', 'html', 'docx']);
export type ReportFormat = z.infer<typeof reportFormatSchema>;
export const reportFileParams = questionParams.extend({ format: reportFormatSchema });
export const respondentFileParams = studyParams.extend({ format: z.enum(['zip', 'xlsx']) });
