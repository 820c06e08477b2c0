import { z } from 'zod';
import {
  idSchema,
  intervalSchema,
  questionParams,
  studyParams,
  textSchema,
  uuidSchema,
} from '../ids.js';
import { jobSchema } from '../jobs/records.js';

const wordWeightSchema = z.object({
  word: z.string(),
  weight: z.number(),
  answers: z.number().int(),
});

export const qualitySchema = z.object({
  precision: z.number(),
  precisionInterval: intervalSchema,
  recall: z.number(),
  recallInterval: intervalSchema,
  f1: z.number(),
  f1Interval: intervalSchema,
  averagePrecision: z.number(),
  brier: z.number(),
});
export type Quality = z.infer<typeof qualitySchema>;

/** A settled answer that the model, not having seen it, gets most wrong. */
const mistakeSchema = z.object({ responseId: idSchema, probability: z.number() });
export type Mistake = z.infer<typeof mistakeSchema>;

/** A code's share of all who answered, from a random sample that is settled to the last. */
export const estimatedShareSchema = z.object({
  sampled: z.number().int(),
  mentioned: z.number().int(),
  sampleInterval: intervalSchema,
  estimate: z.object({ value: z.number(), interval: intervalSchema }).nullable(),
});
export type EstimatedShare = z.infer<typeof estimatedShareSchema>;

/** What a training run says of one code. */
export const trainedCodeSchema = z
  .discriminatedUnion('state', [
    z.object({
      codeId: uuidSchema,
      state: z.literal('too_few'),
      examples: z.number().int(),
      /** From the random sample alone. */
      share: estimatedShareSchema.nullable().default(null),
    }),
    z.object({
      codeId: uuidSchema,
      state: z.enum(['weak', 'ready']),
      examples: z.number().int(),
      /** Suggestions of open answers that were read one by one, and are learnt from. */
      decidedFor: z.number().int().default(0),
      decidedAgainst: z.number().int().default(0),
      quality: qualitySchema,
      threshold: z.number(),
      wordsFor: z.array(wordWeightSchema),
      wordsAgainst: z.array(wordWeightSchema),
      /** Average precision by number of answers learnt from, and what `gain.answers` more would likely add. */
      curve: z
        .array(z.object({ answers: z.number().int(), averagePrecision: z.number() }))
        .default([]),
      gain: z
        .object({ answers: z.number().int(), value: z.number(), interval: intervalSchema })
        .nullable()
        .default(null),
      /** Average precision of the nearest coded answers, for comparison. */
      nearest: z.number().nullable().default(null),
      wrongFor: z.array(mistakeSchema).default([]),
      wrongAgainst: z.array(mistakeSchema).default([]),
      share: estimatedShareSchema.nullable().default(null),
      suggested: z.number().int(),
      unsuggested: z.number(),
    }),
  ])
  .meta({ id: 'TrainedCode' });
export type TrainedCode = z.infer<typeof trainedCodeSchema>;
/** A code that has a model. */
export type Trained = Exclude<TrainedCode, { state: 'too_few' }>;

/** A word without effect: on one code's model, or on every model. */
export const excludedWordSchema = z
  .object({
    id: uuidSchema,
    studyId: idSchema,
    codeId: uuidSchema.nullable(),
    word: textSchema.trim().toLowerCase().min(1).max(100),
  })
  .meta({ id: 'ExcludedWord' });
export type ExcludedWord = z.infer<typeof excludedWordSchema>;
export const excludeWordSchema = excludedWordSchema.omit({ studyId: true });
export type ExcludeWord = z.infer<typeof excludeWordSchema>;
export const excludedWordParams = studyParams.extend({ id: uuidSchema });

/** A run as it stands in the list of runs. */
const runHeadSchema = z.object({
  id: idSchema,
  settled: z.number().int(),
  answers: z.number().int(),
  seed: z.number().int(),
  finishedAt: z.iso.datetime(),
  /** Of what was learnt from: equal for equal data. */
  fingerprint: z.string(),
  /** Which answers may get suggestions, as the ledger's filter; empty for all. */
  scope: z.string(),
  /** Whether it learnt from decisions in bulk, too, that nobody had read. */
  learntFromBulk: z.boolean(),
  seconds: z.number(),
  excluded: z.array(excludedWordSchema.pick({ codeId: true, word: true })),
});

export const trainingRunSchema = runHeadSchema
  .extend({
    codes: z.array(trainedCodeSchema),
    /** Themes some of whose codes have too few examples, with how many open answers are likely about each. */
    themes: z
      .array(
        z.object({
          themeId: uuidSchema,
          examples: z.number().int(),
          quality: qualitySchema,
          likely: z.number().int(),
        }),
      )
      .default([]),
    /** Codes that the models take for each other. */
    confused: z.array(
      z.object({ codeId: uuidSchema, takenFor: uuidSchema, answers: z.number().int() }),
    ),
  })
  .meta({ id: 'TrainingRun' });
export type TrainingRun = z.infer<typeof trainingRunSchema>;

/** The state of training for a question: what would be learnt from, the current run, the job in progress. */
export const trainingSchema = z
  .object({
    settled: z.number().int(),
    answered: z.number().int(),
    fewestExamples: z.number().int(),
    fewExamples: z.number().int(),
    /** Settled examples by code, as of now. */
    examples: z.array(z.object({ codeId: uuidSchema, examples: z.number().int() })),
    /** Settled answers by how they were chosen; the rest of them were in no sample. */
    settledInRandom: z.number().int(),
    settledInTelling: z.number().int(),
    /** Decisions in bulk that nobody has read: learnt from only where that is asked for. */
    unreadInBulk: z.number().int(),
    /** Whether a random sample is settled to the last, so that shares can be estimated. */
    canEstimate: z.boolean(),
    excluded: z.array(excludedWordSchema),
    run: trainingRunSchema.nullable(),
    /** Newest first; those that can be used again are kept whole. */
    runs: z.array(runHeadSchema.extend({ inForce: z.boolean(), isKept: z.boolean() })),
    job: jobSchema.nullable(),
  })
  .meta({ id: 'Training' });
export type Training = z.infer<typeof trainingSchema>;

export const trainSchema = z.object({
  /** Which answers may get suggestions: a filter of the ledger as it stands in its address. */
  scope: textSchema.max(2000).default(''),
  /** Whether decisions in bulk that nobody has read are examples, too. */
  learnFromBulk: z.boolean().default(false),
});
export type Train = z.infer<typeof trainSchema>;
export const runParams = questionParams.extend({ run: idSchema });

/**
 * An answer whose coding would teach much, and why: the code whose line it is near; or the code without a model that it
 * is near to in meaning; or none fits it.
 */
export const tellingAnswersSchema = z.object({
  answers: z.array(
    z.object({
      responseId: idSchema,
      text: z.string(),
      nearLineOf: uuidSchema.nullable(),
      nearestTo: uuidSchema.nullable(),
    }),
  ),
});
export type TellingAnswers = z.infer<typeof tellingAnswersSchema>;
export const tellingQuery = z.object({ size: z.coerce.number().int().min(1).max(100).default(10) });
