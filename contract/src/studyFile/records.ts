import { z } from 'zod';
import { idSchema, nameSchema } from '../ids.js';

/** The form of a study file; a newer one is refused by an older program. */
export const STUDY_FILE_VERSION = 2;
export const STUDY_FILE_FORM = 'yellow-thread-study';

/** What a copy may do without: what is known of people, names and addresses in notes, who changed what. */
export const leftOutSchema = z.enum(['background', 'names_in_notes', 'history']);
export type LeftOutOfCopy = z.infer<typeof leftOutSchema>;
export const studyFileQuery = z.object({
  without: z
    .array(leftOutSchema)
    .or(leftOutSchema.transform((one) => [one]))
    .default([]),
});

const hashSchema = z.string().regex(/^[0-9a-f]{64}$/u);
/** What a study file says of itself. */
export const studyFileManifest = z.object({
  form: z.literal(STUDY_FILE_FORM),
  version: z.number().int().min(1),
  savedAt: z.iso.datetime(),
  name: nameSchema,
  /** What the study had and the file has not. */
  leftOut: z.array(leftOutSchema).default([]),
  /** Who worked on the study: numbers of people in its rows are places here, from 1. */
  people: z.array(nameSchema).max(10_000),
  tables: z
    .array(
      z.object({
        name: z.string().max(60),
        rows: z.number().int().min(0),
        bytes: z.number().int().min(0),
        sha256: hashSchema,
      }),
    )
    .max(200),
});
export type StudyFileManifest = z.infer<typeof studyFileManifest>;

const codeNames = z.object({ here: z.string(), there: z.string() });
/** What differs of a code that both sides have. */
export const codeDifferenceSchema = codeNames.extend({
  what: z.array(z.enum(['name', 'theme', 'meaning', 'archived'])),
});
export type CodeDifference = z.infer<typeof codeDifferenceSchema>;

/** What bringing a copy's coding into a study does, in numbers. */
export const mergeSummarySchema = z
  .object({
    /** What the copy's study is called, and when it was saved. */
    name: z.string(),
    savedAt: z.iso.datetime(),
    /** Without its history it is not known what was changed or removed there: then nothing is. */
    hasHistory: z.boolean(),
    answers: z.object({
      matched: z.number().int(),
      /** Answers of the copy that are not in this study, and those whose words are others here. */
      notHere: z.number().int(),
      otherText: z.number().int(),
    }),
    codes: z.object({
      added: z.array(z.string()),
      /** Changed there alone: they become as they are there. */
      updated: z.array(codeDifferenceSchema),
      /** Changed on both sides: they stay as they are here. */
      conflicts: z.array(codeDifferenceSchema),
      /** Made on both sides, of the same name: taken for the same. */
      sameName: z.array(z.string()),
      mergedHere: z.array(z.object({ code: z.string(), into: z.string() })),
      mergedThere: z.array(z.object({ code: z.string(), into: z.string() })),
    }),
    mentions: z.object({
      ...{ added: z.number().int(), updated: z.number().int(), removed: z.number().int() },
      /** Given to the same place on both sides. */
      same: z.number().int(),
      conflicts: z.number().int(),
      /** Of answers that were settled here and not there. */
      leftOut: z.number().int(),
    }),
    settled: z.number().int(),
    notes: z.object({
      ...{ added: z.number().int(), updated: z.number().int(), removed: z.number().int() },
    }),
    /** Second readings that come of answers that both sides settled apart. */
    readings: z.array(
      z.object({
        questionId: idSchema,
        coder: z.string(),
        answers: z.number().int(),
        /** Coded exactly alike. */
        agreed: z.number().int(),
      }),
    ),
    /** Whether there is anything to be brought in. */
    isNothing: z.boolean(),
  })
  .meta({ id: 'MergeSummary' });
export type MergeSummary = z.infer<typeof mergeSummarySchema>;
