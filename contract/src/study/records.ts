import { z } from 'zod';
import { backgroundKindSchema, idSchema, nameSchema, proseSchema, uuidSchema } from '../ids.js';
import { roleSchema } from '../people/roles.js';
import { derivedSchema } from '../respondents/records.js';
import { asideMarksSchema } from '../sheet/records.js';

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

/** A study as the list shows it to a person. */
export const listedStudySchema = studySummarySchema
  .omit({ questions: true })
  .extend({
    isArchived: z.boolean(),
    role: roleSchema,
    /** When this person last had it open; null for never. */
    openedAt: z.iso.datetime().nullable(),
    /** Names of the others who work on it. */
    team: z.array(z.string()),
    questions: z.array(
      z.object({
        id: idSchema,
        label: z.string(),
        answered: z.number().int(),
        /** Settled by hand, or every code of the codebook is decided for them. */
        settled: z.number().int(),
      }),
    ),
  })
  .meta({ id: 'ListedStudy' });
export type ListedStudy = z.infer<typeof listedStudySchema>;
export const studyListSchema = z.object({
  /** The one that this person opened last comes first. */
  studies: z.array(listedStudySchema),
});

/** What the study keeps of one person. */
export const membershipSchema = z
  .object({
    /** Where they stopped: the address within the study; null before they opened a page of it. */
    place: z.string().nullable(),
    hidesNextSteps: z.boolean(),
    /** Second readings that they were asked for and have not finished, oldest first. */
    readings: z.array(z.object({ id: uuidSchema, questionId: idSchema, left: z.number().int() })),
    /** Questions with answers that were assigned to them, in the order of the study. */
    assigned: z.array(
      z.object({ questionId: idSchema, size: z.number().int(), left: z.number().int() }),
    ),
  })
  .meta({ id: 'Membership' });
export type Membership = z.infer<typeof membershipSchema>;
export const membershipChangeSchema = z.object({
  place: z
    .string()
    .max(2000)
    .regex(/^[a-z][\w\-./~!$&'()*+,;=:@%?]*$/u, 'A place is an address within the study.')
    .optional(),
  hidesNextSteps: z.boolean().optional(),
});
export type MembershipChange = z.infer<typeof membershipChangeSchema>;

export const studyArchiveSchema = z.object({ isArchived: z.boolean() });
/** Deleting a study takes its name, typed. */
export const studyDeleteSchema = z.object({ name: z.string().max(200) });

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
    /** Suggestions of the current run; null before any training. */
    suggestions: z.object({ open: z.number().int(), decided: z.number().int() }).nullable(),
  })
  .meta({ id: 'Question' });
export type Question = z.infer<typeof questionSchema>;

export const variableSchema = z
  .object({
    id: idSchema,
    name: z.string(),
    kind: backgroundKindSchema,
    /** Set for a variable that is computed. */
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
    /** Of the group that the study is restricted to; `allRespondents` of the whole study. */
    respondents: z.number().int(),
    allRespondents: z.number().int(),
    weighted: z.boolean(),
    /** What whoever asks does in it. */
    role: roleSchema,
    /** Whether readers see contact details and names masked, and no respondent's id. */
    masksForReaders: z.boolean(),
    /** How the interviewer's words are marked inside answers. */
    asides: asideMarksSchema,
    /** Words that a first look leaves out. */
    setAside: z.array(z.string()),
    /** What counts as no answer. */
    noAnswers: z.array(z.string()),
    questions: z.array(questionSchema),
    variables: z.array(variableSchema),
  })
  .meta({ id: 'StudyDetail' });
export type StudyDetail = z.infer<typeof studyDetailSchema>;
