import { z } from 'zod';
import {
  backgroundKindSchema,
  idSchema,
  nameSchema,
  studyParams,
  textSchema,
  valueSchema,
} from '../ids.js';
import { jobSchema } from '../jobs/records.js';

export const columnRoleSchema = z.enum([
  'id',
  'question',
  'category',
  'number',
  'date',
  'yes_no',
  'ticked',
  'choices',
  'weight',
  'codes',
  'leave_out',
]);
export type ColumnRole = z.infer<typeof columnRoleSchema>;

/** How a text file may be written: UTF, and the sets of characters that survey programs still export. */
export const encodingSchema = z.enum([
  'utf-8',
  'utf-16le',
  'utf-16be',
  'windows-1252',
  'windows-1250',
  'windows-1251',
  'windows-1253',
  'windows-1254',
  'windows-1255',
  'windows-1256',
  'windows-1257',
  'windows-1258',
  'iso-8859-2',
  'iso-8859-5',
  'iso-8859-7',
  'iso-8859-9',
  'iso-8859-15',
  'koi8-r',
  'macintosh',
  'gb18030',
  'big5',
  'shift_jis',
  'euc-jp',
  'euc-kr',
]);

export const separatorSchema = z.enum([',', ';', '\t', '|']);
export type Separator = z.infer<typeof separatorSchema>;

/** How a file is read. */
export const fileSettingsSchema = z.object({
  format: z.enum(['text', 'xlsx', 'ods', 'json_lines']),
  /** Names of the worksheets of a workbook, and the one that is read. */
  worksheets: z.array(z.string()),
  worksheet: z.string(),
  separator: separatorSchema,
  encoding: encodingSchema,
  /** Where letters can be read in several ways: some words as they read in each encoding that makes sense, the chosen one first. */
  readings: z.array(z.object({ encoding: encodingSchema, words: z.array(z.string()) })).optional(),
  /** Number of the row in which the head begins, and how many rows it takes. */
  headRow: z.number().int(),
  headRows: z.union([z.literal(1), z.literal(2)]),
});
export type FileSettings = z.infer<typeof fileSettingsSchema>;

/** What the researcher says about how the file is to be read; the rest is guessed. */
export const fileChoicesSchema = z
  .object({
    worksheet: z.string().max(200),
    separator: separatorSchema,
    encoding: fileSettingsSchema.shape.encoding,
    headRow: z.number().int().min(1).max(1000),
    headRows: fileSettingsSchema.shape.headRows,
  })
  .partial();

export type FileChoices = z.input<typeof fileChoicesSchema>;

const writingSchema = z.enum(['', 'comma_groups', 'point_groups', 'month_first']);
export type Writing = z.infer<typeof writingSchema>;

/** What a column is for. */
export const columnSettingSchema = z.object({
  role: columnRoleSchema,
  /** Name of the background variable, or wording of the question that the column holds or is coded for. */
  name: textSchema.max(500),
  /** For "Other, please specify": the closed variable that it belongs to; else blank. */
  of: textSchema.max(500),
  /** What parts several choices or codes in a cell; blank where there is one. */
  separator: textSchema.max(3),
  /** How numbers or dates are written, where that can be read in two ways; blank for the usual. */
  writing: writingSchema.default(''),
});
export type ColumnSetting = z.infer<typeof columnSettingSchema>;

/** How the interviewer's words are marked inside answers. */
export const asideMarksSchema = z.object({
  brackets: z.array(z.enum(['[]', '()', '{}', '<>'])).max(4),
  leading: z.array(textSchema.trim().min(1).max(40)).max(20),
});
export type AsideMarks = z.infer<typeof asideMarksSchema>;

export const noAnswersSchema = z.array(textSchema.trim().min(1).max(80)).max(500);

/**
 * What the rows of a sheet are: new respondents, more about respondents who are in the study already, their answers to
 * another question, or a corrected version of what was imported before.
 */
export const sheetRowsSchema = z.enum(['respondents', 'details', 'answers', 'corrections']);

/** Everything that decides what bringing the sheet in will write. */
export const sheetSettingsSchema = z.object({
  as: sheetRowsSchema,
  /** Ids of the sheet that mean an id of the study although they are written differently. */
  matches: z.array(z.object({ from: z.string().max(200), to: z.string().max(200) })).max(100_000),
  columns: z.array(columnSettingSchema).max(1000),
  duplicates: z.enum(['stop', 'first', 'last', 'suffix']),
  keepSpellings: z.array(textSchema.max(500)).max(1000),
  noAnswers: noAnswersSchema,
  answersDespite: z
    .array(z.object({ question: textSchema.max(500), text: textSchema.max(80) }))
    .max(1000),
  asides: asideMarksSchema,
  /** Name of the wave that these respondents belong to; blank for none. */
  wave: z.union([z.literal(''), nameSchema]),
});
export type SheetSettings = z.infer<typeof sheetSettingsSchema>;

/** An uploaded sheet that is not yet imported; `ready` once it was read through. */
export const sheetSchema = z
  .object({
    id: idSchema,
    fileName: z.string(),
    size: z.number().int(),
    uploadedAt: z.iso.datetime(),
    /** The job that reads it through, the newest one. */
    reading: jobSchema.nullable(),
    ready: z
      .object({
        file: fileSettingsSchema,
        rows: z.number().int(),
        columns: z.array(z.object({ head: z.string(), code: z.string(), reason: z.string() })),
        /** The first rows, as text. */
        preview: z.array(z.array(z.string())),
        /** What is proposed, or was chosen last. */
        settings: sheetSettingsSchema,
      })
      .nullable(),
  })
  .meta({ id: 'Sheet' });
export type Sheet = z.infer<typeof sheetSchema>;
export type ReadySheet = NonNullable<Sheet['ready']>;

export const sheetListSchema = z.object({
  sheets: z.array(sheetSchema.pick({ id: true, fileName: true, size: true, uploadedAt: true })),
});
export type SheetList = z.infer<typeof sheetListSchema>;
export const sheetParams = studyParams.extend({ sheet: idSchema });

export const findingSchema = z.object({
  code: z.string(),
  kind: z.enum(['stop', 'notice']),
  sentence: z.string(),
  /** How many rows, and the numbers of the first of them. */
  count: z.number().int(),
  rows: z.array(z.number().int()),
  /** The column or variable concerned. */
  about: z.string(),
});
export type Finding = z.infer<typeof findingSchema>;

/** What bringing the sheet in would write. */
export const sheetCheckSchema = z
  .object({
    respondents: z.number().int(),
    questions: z.array(
      z.object({
        wording: z.string(),
        of: z.string(),
        /** True when the study has this question already. */
        known: z.boolean(),
        answered: z.number().int(),
        noAnswer: z.number().int(),
        notAsked: z.number().int(),
        settled: z.number().int(),
        proposed: z.array(
          z.object({
            text: z.string(),
            count: z.number().int(),
            counts: z.enum(['no_answer', 'answer']),
          }),
        ),
      }),
    ),
    variables: z.array(
      z.object({
        name: z.string(),
        kind: backgroundKindSchema,
        known: z.boolean(),
        stated: z.number().int(),
        different: z.number().int(),
        categories: z
          .array(z.object({ value: z.string(), count: z.number().int(), label: z.string() }))
          .nullable(),
      }),
    ),
    codes: z.array(z.object({ name: z.string(), known: z.boolean(), mentions: z.number().int() })),
    findings: z.array(findingSchema),
    /** Rows as they will be stored: the first ones, then random ones. */
    preview: z.array(
      z.object({
        row: z.number().int(),
        externalId: z.string(),
        background: z.array(valueSchema.nullable()),
        responses: z.array(
          z
            .object({ text: z.string(), noAnswer: z.boolean(), codes: z.array(z.string()) })
            .nullable(),
        ),
      }),
    ),
  })
  .meta({ id: 'SheetCheck' });
export type SheetCheck = z.infer<typeof sheetCheckSchema>;

/** What importing a sheet of details or corrections would change. */
export const sheetDifferenceSchema = z
  .object({
    /** Respondents of the sheet whom the study has, and has not. */
    found: z.number().int(),
    unknown: z.number().int(),
    /** Respondents of the study whom the sheet does not have. */
    absent: z.number().int(),
    /** Respondents with other background, texts that differ, and how many of these carry codes. */
    changedPeople: z.number().int(),
    changedTexts: z.number().int(),
    changedCoded: z.number().int(),
    /** Answers that respondents of the study do not have yet. */
    newAnswers: z.number().int(),
    /** The first of the changes. */
    changes: z.array(
      z.object({
        externalId: z.string(),
        about: z.string(),
        before: z.string(),
        after: z.string(),
      }),
    ),
    /** Unknown ids that may be an absent one written differently. */
    proposals: z.array(
      z.object({
        from: z.string(),
        to: z.string(),
        why: z.enum(['case or white space', 'zeros or punctuation', 'one character']),
      }),
    ),
    firstUnknown: z.array(z.string()),
    firstAbsent: z.array(z.string()),
  })
  .meta({ id: 'SheetDifference' });
export type SheetDifference = z.infer<typeof sheetDifferenceSchema>;

/** Ids that only the sheet has, or only the study. */
export const unmatchedQuery = z.object({ side: z.enum(['sheet', 'study']) });

/** An import as the study's history keeps it. */
export const importRecordSchema = z
  .object({
    id: idSchema,
    fileName: z.string(),
    checksum: z.string(),
    size: z.number().int(),
    as: sheetRowsSchema,
    wave: z.string(),
    respondents: z.number().int(),
    responses: z.number().int(),
    /** By details or corrections: respondents with other background, and texts. */
    changedPeople: z.number().int(),
    changedTexts: z.number().int(),
    at: z.iso.datetime(),
    by: z.string(),
    /** `until` when it can be restored. */
    undone: z.object({ at: z.iso.datetime(), by: z.string(), until: z.iso.datetime() }).nullable(),
    roles: z.array(z.object({ column: z.string(), role: z.string() })),
    findings: z.array(findingSchema.pick({ kind: true, sentence: true, count: true })),
    decisions: z.array(z.string()),
  })
  .meta({ id: 'ImportRecord' });
export type ImportRecord = z.infer<typeof importRecordSchema>;
export const importListSchema = z.object({ imports: z.array(importRecordSchema) });
export const importParams = studyParams.extend({ import: idSchema });

/** What would go if an import were undone. */
export const importUndoSchema = z.object({
  respondents: z.number().int(),
  responses: z.number().int(),
  /** Answers that somebody settled or coded, and mentions made since, by hand or from suggestions. */
  settled: z.number().int(),
  mentions: z.number().int(),
  suggestions: z.number().int(),
  variables: z.array(z.string()),
  questions: z.array(z.string()),
  /** Codings of a second reading. */
  codedTwice: z.number().int(),
  /** Values and texts that get back what they were before. */
  restored: z.number().int(),
});
export type ImportUndo = z.infer<typeof importUndoSchema>;
