import { z } from 'zod';
import { nameSchema } from '../ids.js';

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
