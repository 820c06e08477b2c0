import { z } from 'zod';
import { idSchema, intervalSchema, questionParams, uuidSchema } from '../ids.js';

/** How it was found that the answers without a mention do not mention a code. */
export const closingMethodSchema = z.enum(['suggestions', 'search']);
export type ClosingMethod = z.infer<typeof closingMethodSchema>;

/** That a code is decided for every answer to a question: where it is not mentioned, it does not apply. */
export const codeClosingSchema = z
  .object({
    studyId: idSchema,
    questionId: idSchema,
    codeId: uuidSchema,
    how: closingMethodSchema,
    /** Mentions that the model expected among the answers that nobody decided one by one. */
    expected: z.number(),
    /** Answers that came later are open again for the code. */
    lastResponseId: idSchema,
    closedBy: idSchema,
    closedAt: z.iso.datetime(),
  })
  .meta({ id: 'CodeClosing' });
export type CodeClosing = z.infer<typeof codeClosingSchema>;

/** That what is open of a question is left to the models of a run, to be corrected by a check. */
export const modelDecisionSchema = z
  .object({
    studyId: idSchema,
    questionId: idSchema,
    runId: idSchema,
    /** Codes that are left to models that are not to be relied on, or to none. */
    relied: z.array(uuidSchema),
    lastResponseId: idSchema,
    sampleId: idSchema.nullable(),
    decidedBy: idSchema,
    decidedAt: z.iso.datetime(),
  })
  .meta({ id: 'ModelDecision' });
export type ModelDecision = z.infer<typeof modelDecisionSchema>;

/** What a code's model is good for. */
export const modelVerdictSchema = z.enum(['good', 'usable', 'little_evidence', 'unreliable']);
export type ModelVerdict = z.infer<typeof modelVerdictSchema>;

/** How far a code is decided for the answers to a question. */
export const codeLeftSchema = z.object({
  codeId: uuidSchema,
  /** Suggestions to be decided, and those of them that the model is unsure of. */
  open: z.number().int(),
  unsure: z.number().int(),
  /** Answers of which it is not known whether they mention it. */
  undecided: z.number().int(),
  /** Mentions expected among the undecided answers without a suggestion; null without a model. */
  expected: z.number().nullable(),
  /** Settled answers with the code. */
  examples: z.number().int(),
  /** Null without a model. */
  verdict: modelVerdictSchema.nullable(),
  closed: z
    .object({
      how: closingMethodSchema,
      by: z.string(),
      at: z.string(),
      /** Answers that came, or were corrected, after it was closed. */
      newAnswers: z.number().int(),
    })
    .nullable(),
});
export type CodeLeft = z.infer<typeof codeLeftSchema>;

/** Where the answers to a question stand, and what the ways to its end would take. */
export const whatIsLeftSchema = z
  .object({
    answered: z.number().int(),
    /** Settled by hand, and those of them with suggestions in view. */
    settled: z.number().int(),
    assisted: z.number().int(),
    /** Every code decided, code by code. */
    decided: z.number().int(),
    byModel: z.number().int(),
    open: z.number().int(),
    /** Wordings among the open answers, those decided by the models among them. */
    openWordings: z.number().int(),
    /** Of the random sample, answers that nobody has read yet; of the check likewise. */
    sampleOpen: z.number().int(),
    isFinished: z.boolean(),
    hasModels: z.boolean(),
    codes: z.array(codeLeftSchema),
    fewestExamples: z.number().int(),
    /** Seconds an answer and a decision, by the person's own last ones; null until known. */
    pace: z.object({ answer: z.number().nullable(), decision: z.number().nullable() }),
    /** The estimate with the widest interval among the themes; null where nothing can be estimated, and why. */
    widest: z.object({ name: z.string(), share: z.number(), interval: intervalSchema }).nullable(),
    notEstimated: z.string().nullable(),
    /** What the models decided; null where they did not. */
    model: z
      .object({
        by: z.string(),
        at: z.string(),
        check: z.object({ drawn: z.number().int(), read: z.number().int() }),
      })
      .nullable(),
  })
  .meta({ id: 'WhatIsLeft' });
export type WhatIsLeft = z.infer<typeof whatIsLeftSchema>;

export const closeCodesSchema = z.object({
  codes: z
    .array(z.object({ codeId: uuidSchema, how: closingMethodSchema }))
    .min(1)
    .max(2000),
});
export type CloseCodes = z.infer<typeof closeCodesSchema>;
export const closedCodesSchema = z.object({ closed: z.number().int() });

export const decideByModelSchema = z.object({
  /** Codes whose model is not to be relied on, or that have none, which the person leaves to the check all the same. */
  relied: z.array(uuidSchema).max(2000).default([]),
  /** How many answers are drawn to check what the models decided. */
  check: z.number().int().min(2).max(10_000),
});
export type DecideByModel = z.infer<typeof decideByModelSchema>;
export const decidedByModelSchema = z.object({
  answers: z.number().int(),
  drawn: z.number().int(),
});

export const closingParams = questionParams.extend({ code: uuidSchema });
