import { z } from 'zod';
import { ledgerAnswerSchema } from './ledger.js';
import { flagSchema, idSchema, intervalSchema, pageQuery, uuidSchema } from './ids.js';

export const baseKindSchema = z.enum(['settled', 'answered', 'asked']);
export type BaseKind = z.infer<typeof baseKindSchema>;

/** How differences between columns are corrected for their number; `off` for no tests. */
export const correctionSchema = z.enum(['holm', 'benjamini_hochberg', 'none', 'off']);
export type CorrectionChoice = z.infer<typeof correctionSchema>;

/** Which table is wanted. `by`: nothing, the questions side by side, or a background variable's id. */
export const reportQuery = z.object({
  by: z.union([z.literal('none'), z.literal('question'), idSchema]).default('none'),
  base: baseKindSchema.default('settled'),
  weighted: flagSchema.default(false),
  test: correctionSchema.default('holm'),
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
  base: baseSchema,
  share: z.number().nullable(),
  interval: intervalSchema.nullable(),
  /** Letters of the columns whose share is lower beyond chance. */
  exceeds: z.array(z.string()),
});
export type ReportCell = z.infer<typeof reportCellSchema>;

export const reportSchema = z
  .object({
    columns: z.array(
      z.object({
        key: z.string(),
        label: z.string(),
        /** What the column is called in tests; null for one that is not compared. */
        letter: z.string().nullable(),
        asked: z.number().int(),
        answered: z.number().int(),
        settled: z.number().int(),
        settledEffective: z.number(),
      }),
    ),
    rows: z.array(
      z.object({
        kind: z.enum(['theme', 'code']),
        id: uuidSchema,
        themeId: uuidSchema.nullable(),
        name: z.string(),
        /** True when suggestions of this code are decided for every answer, not only the settled ones. */
        decidedForAll: z.boolean(),
        cells: z.array(reportCellSchema),
      }),
    ),
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
  })
  .meta({ id: 'Report' });
export type Report = z.infer<typeof reportSchema>;

/** Which answers stand behind a number: a row (code or theme) in a column. */
export const behindQuery = pageQuery.extend({
  code: uuidSchema.optional(),
  theme: uuidSchema.optional(),
  by: z.union([z.literal('none'), z.literal('question'), idSchema]).default('none'),
  column: z.string().max(500).default('total'),
});
export type BehindQuery = z.infer<typeof behindQuery>;
export const behindSchema = z
  .object({
    answers: z.array(ledgerAnswerSchema),
    total: z.number().int(),
    next: z.string().nullable(),
  })
  .meta({ id: 'AnswersBehind' });
