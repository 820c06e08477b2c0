import { z } from 'zod';
import { idSchema, intervalSchema, uuidSchema, valueSchema } from '../ids.js';
import { reviewParams } from './records.js';

export const checkSideSchema = z.enum(['accepted', 'refused']);
export type CheckSide = z.infer<typeof checkSideSchema>;
/** Whether the code applies to an answer, read without knowing what the model said. */
export const verdictSchema = z.enum(['applies', 'not', 'unsure']);
export type Verdict = z.infer<typeof verdictSchema>;

/** A spot check as it is kept. */
export const spotCheckSchema = z
  .object({
    id: uuidSchema,
    studyId: idSchema,
    questionId: idSchema,
    codeId: uuidSchema,
    side: checkSideSchema,
    drawnFrom: z.number().int(),
    expected: z.number(),
    drawnBy: idSchema,
    drawnAt: z.iso.datetime(),
  })
  .meta({ id: 'SpotCheck' });
export type SpotCheck = z.infer<typeof spotCheckSchema>;
export const spotCheckAnswerSchema = z.object({
  checkId: uuidSchema,
  responseId: idSchema,
  verdict: verdictSchema.nullable(),
});
export type SpotCheckAnswer = z.infer<typeof spotCheckAnswerSchema>;

/** A spot check with what it found so far. */
export const checkedSchema = spotCheckSchema
  .pick({ id: true, side: true, drawnFrom: true, expected: true, drawnAt: true })
  .extend({
    size: z.number().int(),
    applies: z.number().int(),
    not: z.number().int(),
    unsure: z.number().int(),
    /** Share of those with a verdict to which the code applies, unsure ones left out; null before there is one. */
    found: z.object({ value: z.number(), interval: intervalSchema }).nullable(),
    /** Whether it is clearly worse than the model had led one to expect. */
    isWorse: z.boolean(),
  })
  .meta({ id: 'Checked' });
export type Checked = z.infer<typeof checkedSchema>;

export const checkListSchema = z.object({
  checks: z.array(checkedSchema),
  /** Decided in bulk and read by nobody yet. */
  unread: z.object({ accepted: z.number().int(), refused: z.number().int() }),
});
export type CheckList = z.infer<typeof checkListSchema>;

export const checkCreateSchema = z.object({
  id: uuidSchema,
  side: checkSideSchema,
  size: z.number().int().min(1).max(1000),
});
export type CheckCreate = z.infer<typeof checkCreateSchema>;
export const checkParams = reviewParams.extend({ check: uuidSchema });

/** The answers of a check, without the model's predictions. */
export const checkAnswersSchema = z.object({
  answers: z.array(
    z.object({
      responseId: idSchema,
      externalId: z.string(),
      background: z.record(z.string(), valueSchema.nullable()),
      text: z.string(),
      verdict: verdictSchema.nullable(),
    }),
  ),
});
export type CheckAnswers = z.infer<typeof checkAnswersSchema>;
export const judgeSchema = z.object({ responseId: idSchema, verdict: verdictSchema.nullable() });
export type Judge = z.infer<typeof judgeSchema>;

export const reopenSchema = z.object({ side: checkSideSchema });
export const reopenedSchema = z.object({ reopened: z.number().int() });
