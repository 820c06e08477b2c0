import { z } from 'zod';
import { idSchema, proseSchema, studyParams, uuidSchema } from '../ids.js';

/**
 * Free text on a passage, an answer, a respondent or a code. On a passage without any text it is a mere mark to
 * come back to.
 */
export const noteSchema = z
  .object({
    id: uuidSchema,
    studyId: idSchema,
    responseId: idSchema.nullable(),
    /** The passage in UTF-16 units, end exclusive; null for the whole answer. */
    start: z.number().int().min(0).nullable(),
    end: z.number().int().min(1).nullable(),
    respondentId: idSchema.nullable(),
    codeId: uuidSchema.nullable(),
    text: proseSchema,
    /** The coding of the answer is doubtful. */
    unsure: z.boolean(),
    authorId: idSchema,
    createdAt: z.iso.datetime(),
  })
  .meta({ id: 'Note' });
export type Note = z.infer<typeof noteSchema>;

/** A note as it is shown, with who wrote it. */
export const shownNoteSchema = noteSchema.extend({ author: z.string() }).meta({ id: 'ShownNote' });
/** What a note of the study's list is on; null for a code. */
const listedNoteSchema = shownNoteSchema.extend({
  on: z
    .object({
      externalId: z.string(),
      questionId: idSchema.nullable(),
      words: z.string().nullable(),
    })
    .nullable(),
});
export type ListedNote = z.infer<typeof listedNoteSchema>;
export type ShownNote = z.infer<typeof shownNoteSchema>;

export const noteCreateSchema = noteSchema
  .omit({ studyId: true, authorId: true, createdAt: true })
  .refine(
    ({ responseId, respondentId, codeId }) =>
      [responseId, respondentId, codeId].filter((id) => id !== null).length === 1,
    'A note belongs to one answer, one respondent or one code.',
  )
  .refine(
    ({ responseId, start, end }) =>
      start === null ? end === null : responseId !== null && end !== null && start < end,
    'A passage needs a start before its end, or neither.',
  );
export type NoteCreate = z.infer<typeof noteCreateSchema>;
export const noteEditSchema = z.object({
  from: z.object({ text: proseSchema, unsure: z.boolean() }),
  to: z.object({ text: proseSchema, unsure: z.boolean() }),
});
export const noteParams = studyParams.extend({ note: uuidSchema });
export const notesSchema = z.object({ notes: z.array(listedNoteSchema) });
