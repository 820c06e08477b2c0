import { z } from 'zod';
import { ruleSchema, withinQuery } from '../groups/records.js';
import {
  flagSchema,
  idListSchema,
  idSchema,
  intervalSchema,
  pageQuery,
  questionParams,
  studyParams,
  uuidSchema,
} from '../ids.js';
import { estimatedShareSchema } from '../learning/records.js';
import { ledgerAnswerSchema } from '../coding/ledger.js';

/** What a percentage is out of: people who are settled, who answered, who were asked; or everything mentioned. */
export const baseKindSchema = z.enum(['settled', 'answered', 'asked', 'mentions']);
export type BaseKind = z.infer<typeof baseKindSchema>;

/**
 * What a table counts, one rule for all of its rows: the random sample, read by people; everybody, estimated;
 * everybody, decided; or all that is settled by hand.
 */
export const countingRuleSchema = z.enum(['decided', 'estimated', 'sample', 'settled']);
export type CountingRule = z.infer<typeof countingRuleSchema>;

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

/** Decimals of percentages: by the size of the base (none under 100, one above), or a fixed number. */
const decimalsSchema = z.enum(['fitting', '0', '1', '2']).default('fitting');
/** Which figures are wanted; the whole choice stands in the address, so that it can be kept and passed on. */
export const reportQuery = withinQuery.extend({
  /** Left out, the strongest rule that holds. */
  counts: countingRuleSchema.optional(),
  by: acrossSchema.default('none'),
  /** Which groups stand across, in this order; none for all of them. */
  groups: idListSchema,
  /** Whether a person counts who mentions it in this question, or in any. */
  questions: z.enum(['one', 'all']).default('one'),
  /** Left out, or where the rule has no such base, the people whose answers count. */
  base: baseKindSchema.optional(),
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
  /** Whether every comparison is listed with its figures. */
  tests: flagSchema.default(false),
  /** Whether rows are left out that nobody mentions. */
  empty: z.enum(['shown', 'hidden']).default('shown'),
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
  /** People of the base for whom it is not decided whether they mention it: the figures are "at least". */
  undecided: z.number().int(),
  share: z.number().nullable(),
  interval: intervalSchema.nullable(),
  /** Letters of the columns whose share is lower beyond chance. */
  exceeds: z.array(z.string()),
  /** How it stands to everyone else, where that is asked for and is beyond chance. */
  rest: z.enum(['higher', 'lower']).nullable(),
  /** Of all who answered, where that is asked for and enough of the random sample are in the column. */
  estimated: estimatedShareSchema
    .extend({ sampleShare: z.number(), effective: z.number().nullable().default(null) })
    .nullable()
    .default(null),
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
  /** People whose answers count by the table's rule; of an estimate, those whom it rests on. */
  counted: z.number().int(),
  countedWeighted: z.number(),
  countedEffective: z.number(),
  /** Whether it is compared with other columns. */
  isCompared: z.boolean().default(false),
});

/** What a test of a difference gives. */
const testFigures = {
  test: z.enum(['z', 'fisher', 'rao_scott']),
  /** z or F; null for the exact test, which has none. */
  statistic: z.number().nullable().default(null),
  /** Degrees of freedom of an F: two of them. */
  degrees: z.array(z.number()).default([]),
  p: z.number(),
};

export const reportRowSchema = z.object({
  kind: z.enum(['theme', 'code', 'bundle']),
  id: uuidSchema,
  /** The theme or bundle that the row belongs to; null for a row by itself. */
  parentId: uuidSchema.nullable(),
  name: z.string(),
  /** Whether some column has people for whom it is not decided: the row's figures are "at least", and not tested. */
  isAtLeast: z.boolean(),
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
      /** How far each compared column is off what is expected, in standard errors, in their order. */
      residuals: z.array(z.number()).default([]),
    })
    .nullable(),
  difference: z
    .object({
      value: z.number(),
      interval: intervalSchema,
      ...testFigures,
    })
    .nullable(),
  /** Every comparison of the row, where they are asked for. */
  tests: z
    .array(
      z.object({
        /** Places of the two columns; the second is null for everyone else. */
        one: z.number().int(),
        other: z.number().int().nullable(),
        value: z.number(),
        interval: intervalSchema,
        ...testFigures,
        /** p, corrected for all comparisons of the row. */
        corrected: z.number(),
      }),
    )
    .default([]),
});
export type ReportRow = z.infer<typeof reportRowSchema>;

export const reportSchema = z
  .object({
    columns: z.array(reportColumnSchema),
    rows: z.array(reportRowSchema),
    /** Columns that have respondents in common, and so cannot be compared with each other. */
    overlapping: z.array(z.tuple([z.string(), z.string()])),
    /** What the table counts, and why it cannot count by another rule; null where it can. */
    counts: countingRuleSchema,
    rules: z.array(z.object({ rule: countingRuleSchema, why: z.string().nullable() })),
    /** Whether each row counted by a rule of its own: of copies that were frozen before tables had one. */
    isMixed: z.boolean().default(false),
    /** Whether every answer is settled. */
    isFinished: z.boolean(),
    /**
     * Of the random sample: how many were drawn, how many of these are settled by hand without suggestions, and whether
     * nothing else is settled by hand.
     */
    sample: z.object({
      drawn: z.number().int(),
      read: z.number().int(),
      isAllSettled: z.boolean(),
    }),
    /** Answers that were settled with suggestions in view. */
    assisted: z.number().int(),
    /** Answers that the models decided: they are counted nowhere. */
    byModel: z.number().int(),
    /** Where the counted mentions come from; those on answers that do not count are `notCounted`. */
    origins: z.object({
      hand: z.number().int(),
      accepted: z.number().int(),
      bulk: z.number().int(),
      import: z.number().int(),
      words: z.number().int(),
      notCounted: z.number().int(),
    }),
    /** Spot checks of what was decided in bulk, a code and side each, as they found it before anything was changed. */
    checked: z.array(
      z.object({
        code: z.string(),
        side: z.enum(['accepted', 'refused']),
        read: z.number().int(),
        applies: z.number().int(),
        interval: intervalSchema,
      }),
    ),
    /** Codes of which somebody said that answers without a mention do not mention them, and how that was found. */
    closed: z.array(
      z.object({ code: z.string(), how: z.enum(['suggestions', 'search']), expected: z.number() }),
    ),
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
          /** When the models were trained; null for an estimate from the sample alone. */
          trainedAt: z.string().nullable(),
          /** Answers settled by hand that are known and not estimated, where the rest was checked by itself. */
          known: z.number().int().default(0),
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
  .pick({ group: true, counts: true, by: true, groups: true, questions: true })
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
  /** Left out: everybody where every answer is settled, and all that is settled by hand otherwise. */
  counts: countingRuleSchema.exclude(['estimated']).optional(),
});
export type TogetherQuery = z.infer<typeof togetherQuery>;
export const togetherFileParams = questionParams.extend({ format: z.enum(['csv', 'xlsx']) });
export const togetherSchema = z
  .object({
    counts: countingRuleSchema,
    /** Whether counts are sums of weights; the unweighted ones stand beside them. */
    weighted: z.boolean(),
    /** How many answers (or lines) each code is counted in. */
    codes: z.array(
      z.object({
        id: uuidSchema,
        name: z.string(),
        /** Of how many answers or lines, and in how many it is mentioned. */
        n: z.number(),
        found: z.number(),
        unweighted: z.object({ n: z.number().int(), found: z.number().int() }),
        /** With each of the other codes, in the same order; null with itself. */
        cells: z.array(
          z
            .object({
              both: z.number(),
              unweighted: z.number().int(),
              jaccard: z.number().nullable(),
              phi: z.number().nullable(),
              lift: z.number().nullable(),
              /** Corrected for all pairs; of the unweighted counts. */
              p: z.number(),
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
/** A table also goes to programs, as a ZIP of tidy CSV files. */
export const tableFormatSchema = z.enum([...reportFormatSchema.options, 'zip']);
export type TableFormat = z.infer<typeof tableFormatSchema>;
export const reportFileParams = questionParams.extend({ format: tableFormatSchema });
export const respondentFileParams = studyParams.extend({ format: z.enum(['zip', 'xlsx']) });
