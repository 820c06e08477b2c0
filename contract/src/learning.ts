import { z } from 'zod';
import { idSchema, intervalSchema, uuidSchema } from './ids.js';
import { jobSchema } from './jobs.js';

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

/** What a training run says of one code. */
export const trainedCodeSchema = z
  .discriminatedUnion('state', [
    z.object({ codeId: uuidSchema, state: z.literal('too_few'), examples: z.number().int() }),
    z.object({
      codeId: uuidSchema,
      state: z.enum(['weak', 'ready']),
      examples: z.number().int(),
      quality: qualitySchema,
      line: z.number(),
      wordsFor: z.array(wordWeightSchema),
      wordsAgainst: z.array(wordWeightSchema),
      suggested: z.number().int(),
      unsuggested: z.number(),
    }),
  ])
  .meta({ id: 'TrainedCode' });
export type TrainedCode = z.infer<typeof trainedCodeSchema>;

export const trainingRunSchema = z
  .object({
    id: idSchema,
    settled: z.number().int(),
    answers: z.number().int(),
    seed: z.number().int(),
    finishedAt: z.iso.datetime(),
    codes: z.array(trainedCodeSchema),
  })
  .meta({ id: 'TrainingRun' });
export type TrainingRun = z.infer<typeof trainingRunSchema>;

/** The state of training for a question: what would be learnt from, the run in force, the job under way. */
export const trainingSchema = z
  .object({
    settled: z.number().int(),
    answered: z.number().int(),
    fewestExamples: z.number().int(),
    fewExamples: z.number().int(),
    /** Settled examples by code, as of now. */
    examples: z.array(z.object({ codeId: uuidSchema, examples: z.number().int() })),
    run: trainingRunSchema.nullable(),
    job: jobSchema.nullable(),
  })
  .meta({ id: 'Training' });
export type Training = z.infer<typeof trainingSchema>;
