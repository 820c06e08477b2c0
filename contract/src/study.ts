import { z } from 'zod';
import { idSchema, nameSchema, proseSchema } from './ids.js';

export const studyCreateSchema = z.object({ name: nameSchema, purpose: proseSchema });
export type StudyCreate = z.infer<typeof studyCreateSchema>;

export const studySummarySchema = z
  .object({
    id: idSchema,
    name: z.string(),
    purpose: z.string(),
    respondents: z.number().int(),
    questions: z.number().int(),
  })
  .meta({ id: 'StudySummary' });
export type StudySummary = z.infer<typeof studySummarySchema>;
export const studyListSchema = z.object({ studies: z.array(studySummarySchema) });

export const questionSchema = z
  .object({
    id: idSchema,
    label: z.string(),
    wording: z.string(),
    asked: z.number().int(),
    answered: z.number().int(),
    settled: z.number().int(),
    /** Answers in the random sample, and how many of them are settled. */
    sample: z.object({ size: z.number().int(), settled: z.number().int() }).nullable(),
    /** Suggestions of the run in force; null before any training. */
    suggestions: z.object({ open: z.number().int(), decided: z.number().int() }).nullable(),
  })
  .meta({ id: 'Question' });
export type Question = z.infer<typeof questionSchema>;

export const variableSchema = z
  .object({
    id: idSchema,
    name: z.string(),
    kind: z.enum(['category', 'number', 'date', 'yes_no']),
    /** How many different values respondents have, "not stated" among them. */
    values: z.number().int(),
  })
  .meta({ id: 'Variable' });
export type Variable = z.infer<typeof variableSchema>;

export const studyDetailSchema = z
  .object({
    id: idSchema,
    name: z.string(),
    purpose: z.string(),
    respondents: z.number().int(),
    weighted: z.boolean(),
    questions: z.array(questionSchema),
    variables: z.array(variableSchema),
    imports: z.array(
      z.object({
        id: idSchema,
        fileName: z.string(),
        respondents: z.number().int(),
        responses: z.number().int(),
        at: z.iso.datetime(),
        by: z.string(),
      }),
    ),
  })
  .meta({ id: 'StudyDetail' });
export type StudyDetail = z.infer<typeof studyDetailSchema>;
