import { z } from 'zod';
import { codeCreateSchema, originSchema, themeCreateSchema } from '../codebook/records.js';
import { idSchema, studyParams, uuidSchema } from '../ids.js';

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
    /** Pinned as an example of its code. */
    typical: z.boolean(),
  })
  .meta({ id: 'Mention' });
export type Mention = z.infer<typeof mentionSchema>;

export const mentionCreateSchema = mentionSchema
  .pick({ id: true, responseId: true, codeId: true, start: true, end: true })
  .extend({
    /** A code that is made in the same stroke. */
    newCode: codeCreateSchema.optional(),
    /** A theme that the new code is put under, made in the same stroke. */
    newTheme: themeCreateSchema.optional(),
    /** Applies the code to every answer of the same words too, where they are not coded so yet. */
    toSame: z.boolean().optional(),
  })
  .refine(
    ({ start, end }) => (start === null ? end === null : end !== null && start < end),
    'A passage needs a start before its end, or neither.',
  );
export type MentionCreate = z.infer<typeof mentionCreateSchema>;

/** That somebody decided the codes of a response. */
export const settlementSchema = z
  .object({
    responseId: idSchema,
    coderId: idSchema,
    settledAt: z.iso.datetime(),
    /** Whether the models' suggestions were in view: such an answer is in no random sample and no agreement. */
    assisted: z.boolean(),
  })
  .meta({ id: 'Settlement' });
export type Settlement = z.infer<typeof settlementSchema>;
export const settleSchema = z.object({
  settled: z.boolean(),
  /** Settles every answer of the same words too. */
  toSame: z.boolean().optional(),
  /** Whether the models' suggestions were in view. */
  assisted: z.boolean().default(false),
});
export type Settle = z.infer<typeof settleSchema>;

/** Settles an answer as it is shown with its suggestions: these become mentions in the same change. */
export const readAnswerSchema = z.object({
  accept: z
    .array(
      z
        .object({
          codeId: uuidSchema,
          start: z.number().int().min(0).nullable(),
          end: z.number().int().min(1).nullable(),
        })
        .refine(
          ({ start, end }) => (start === null ? end === null : end !== null && start < end),
          'A passage needs a start before its end, or neither.',
        ),
    )
    .max(100),
  toSame: z.boolean().default(false),
});
export type ReadAnswer = z.infer<typeof readAnswerSchema>;

/** What is changed of a mention: its code, or the characters that it rests on, or that it is typical. */
export const mentionEditSchema = z
  .object({
    codeId: uuidSchema,
    passage: z
      .object({ start: z.number().int().min(0), end: z.number().int().min(1) })
      .refine(({ start, end }) => start < end, 'A passage needs a start before its end.')
      .nullable(),
    typical: z.boolean(),
  })
  .partial();
export type MentionEdit = z.infer<typeof mentionEditSchema>;

/** Where a line of an answer was split or joined by hand. */
export const lineCutSchema = z
  .object({
    responseId: idSchema,
    /** In UTF-16 units: where the later line begins, or would begin. */
    at: z.number().int().min(1),
    joined: z.boolean(),
  })
  .meta({ id: 'LineCut' });
export type LineCut = z.infer<typeof lineCutSchema>;
/** The line is split here, joined with the one before, or left as the text has it. */
export const lineEditSchema = z.object({
  at: z.number().int().min(1),
  line: z.enum(['split', 'joined', 'as_written']),
});

export const mentionParams = studyParams.extend({ mention: uuidSchema });
export const responseParams = studyParams.extend({ response: idSchema });
