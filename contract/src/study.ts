import { z } from 'zod';
import { backgroundKindSchema, idSchema, nameSchema, proseSchema } from './ids.js';
import { derivedSchema } from './respondents.js';
import { asideMarksSchema } from './sheet.js';

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
    /** Settled by hand. */
    settled: z.number().int(),
    /** Not settled by hand, but every code of the codebook is decided for them. */
    decided: z.number().int(),
    /** Open, and decided by the models: estimated, and counted nowhere. */
    byModel: z.number().int(),
    /** Whether there are answers and every one is settled. */
    isFinished: z.boolean(),
    /** Coded answers of which the text was corrected since. */
    changed: z.number().int(),
    /** Name of the closed variable that "other, please specify" belongs to; null for none. */
    of: z.string().nullable(),
    /** Answers drawn for coding by hand, how many of them are settled, and how many were drawn at random. */
    sample: z
      .object({ size: z.number().int(), settled: z.number().int(), random: z.number().int() })
      .nullable(),
    /** Suggestions of the run in force; null before any training. */
    suggestions: z.object({ open: z.number().int(), decided: z.number().int() }).nullable(),
  })
  .meta({ id: 'Question' });
export type Question = z.infer<typeof questionSchema>;

export const variableSchema = z
  .object({
    id: idSchema,
    name: z.string(),
    kind: backgroundKindSchema,
    /** Set for a variable that is worked out. */
    derived: derivedSchema.nullable(),
    /** What its values are called, where that differs from what is stored. */
    labels: z.record(z.string(), z.string()),
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
    /** Of the group that is looked at; `allRespondents` of the study, whoever is looked at. */
    respondents: z.number().int(),
    allRespondents: z.number().int(),
    weighted: z.boolean(),
    /** How the interviewer's words are marked inside answers. */
    asides: asideMarksSchema,
    /** What counts as no answer. */
    noAnswers: z.array(z.string()),
    questions: z.array(questionSchema),
    variables: z.array(variableSchema),
  })
  .meta({ id: 'StudyDetail' });
export type StudyDetail = z.infer<typeof studyDetailSchema>;
