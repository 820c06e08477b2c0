import { z } from 'zod';
import { measuredAgreementSchema } from '../agreement/records.js';
import { idSchema, nameSchema, studyParams, textSchema, uuidSchema } from '../ids.js';
import { reportFormatSchema, reportSchema } from '../report/records.js';

/** A piece of a write-up, as its editor keeps it. */
export interface WriteUpNode {
  type: string;
  attrs?: Record<string, string | number | boolean | null> | undefined;
  content?: WriteUpNode[] | undefined;
  text?: string | undefined;
  marks?: { type: string }[] | undefined;
}
const LONGEST_TEXT = 100_000;
export const writeUpNodeSchema: z.ZodType<WriteUpNode> = z
  .object({
    type: z.string().max(40),
    attrs: z
      .record(
        z.string().max(40),
        z.union([z.string().max(2000), z.number(), z.boolean()]).nullable(),
      )
      .optional(),
    get content() {
      return z.array(writeUpNodeSchema).max(5000).optional();
    },
    text: textSchema.max(LONGEST_TEXT).optional(),
    marks: z
      .array(z.object({ type: z.string().max(40) }))
      .max(10)
      .optional(),
  })
  .meta({ id: 'WriteUpNode' });

/** A table of a write-up: which figures, of which question. */
export const writeUpTableSchema = z.object({
  id: uuidSchema,
  questionId: idSchema,
  /** What chooses the table, as it stands in the address of a report. */
  query: z.string().max(4000),
});

/** A chart as it was drawn: a picture that does not change, under an id of its own. Sizes are as it is shown. */
export const pictureSchema = z.object({
  id: uuidSchema,
  /** What it shows, for those who cannot see it. */
  alt: textSchema.min(1).max(1000),
  width: z.number().int().min(1).max(10_000),
  height: z.number().int().min(1).max(10_000),
  /** The figures that it draws, shares between 0 and 1; null for charts that were kept without. */
  figures: z
    .object({
      columns: z.array(z.string().max(400)).min(1).max(200),
      rows: z
        .array(z.array(z.union([z.string().max(400), z.number(), z.null()])).max(200))
        .max(600),
    })
    .nullable()
    .default(null),
});
export type Picture = z.infer<typeof pictureSchema>;
/** A PNG in base64, of two megabytes at most. */
export const pictureKeepSchema = z.object({ png: z.base64().max(2_800_000) });
export const pictureParams = studyParams.extend({ picture: uuidSchema });

export const writeUpContentSchema = z.object({
  tables: z.array(writeUpTableSchema).max(40),
  pictures: z.array(pictureSchema).max(40).default([]),
  /** Background variables that stand behind a quote. */
  background: z.array(idSchema).max(10),
  /** Whether names and contact details are masked in quotes, and which words besides are names. */
  masked: z.boolean(),
  names: z.array(nameSchema).max(500),
  /** Blocks that were drafted by the app: one that is no longer in the text was removed by somebody. */
  drafted: z.array(z.string().max(200)).max(5000).default([]),
  /** What is written; null before anything is. */
  body: writeUpNodeSchema.nullable(),
});
export type WriteUpContent = z.infer<typeof writeUpContentSchema>;

export const writeUpSummarySchema = z.object({
  id: uuidSchema,
  name: z.string(),
  tables: z.number().int(),
  savedAt: z.string(),
  savedBy: z.string(),
  /** When it was frozen; null for one that is written on. */
  frozenAt: z.string().nullable(),
});
export type WriteUpSummary = z.infer<typeof writeUpSummarySchema>;
/** A write-up that was deleted, and until when it can be restored. */
export const binnedWriteUpSchema = z.object({
  id: uuidSchema,
  name: z.string(),
  frozenAt: z.string().nullable(),
  by: z.string(),
  at: z.string(),
  until: z.string(),
});
export type BinnedWriteUp = z.infer<typeof binnedWriteUpSchema>;
export const writeUpListSchema = z.object({
  writeUps: z.array(writeUpSummarySchema),
  binned: z.array(binnedWriteUpSchema),
});

export const quoteSchema = z.object({
  codeId: uuidSchema,
  questionId: idSchema,
  text: z.string(),
  who: z.string(),
});
export type Quote = z.infer<typeof quoteSchema>;

/** A table as it is now, or as it was when the write-up was frozen. */
export const countedTableSchema = writeUpTableSchema.extend({
  label: z.string(),
  wording: z.string(),
  /** Name and value: study, base, filters, weighting, date. */
  facts: z.array(z.tuple([z.string(), z.string()])),
  report: reportSchema,
});
export type CountedTable = z.infer<typeof countedTableSchema>;

export const writeUpSchema = z
  .object({
    id: uuidSchema,
    name: z.string(),
    version: z.number().int(),
    content: writeUpContentSchema,
    frozenAt: z.string().nullable(),
    counted: z.array(countedTableSchema),
    /** Tables that could not be counted any more, and why. */
    lost: z.array(z.object({ id: uuidSchema, why: z.string() })),
    quotes: z.array(quoteSchema),
    coders: z.number().int(),
    /** Second readings that are done. */
    agreement: z.array(measuredAgreementSchema),
  })
  .meta({ id: 'WriteUp' });
export type WriteUp = z.infer<typeof writeUpSchema>;

export const writeUpSaveSchema = z.object({
  name: nameSchema,
  /** The version that this was written on; 0 for a new one. */
  version: z.number().int().min(0),
  content: writeUpContentSchema,
});
export type WriteUpSave = z.infer<typeof writeUpSaveSchema>;
export const writeUpSavedSchema = z.object({ version: z.number().int() });
export const freezeSchema = z.object({ id: uuidSchema });

export const writeUpParams = studyParams.extend({ writeUp: uuidSchema });
export const writeUpFileParams = writeUpParams.extend({ format: reportFormatSchema });
