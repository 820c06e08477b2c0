import { z } from 'zod';
import { idSchema, studyParams } from '../ids.js';
import { problemCodeSchema, problemSchema } from '../problem.js';

export const jobKindSchema = z.enum([
  'read',
  'import',
  'undo_import',
  'restore_import',
  'train',
  'encode',
  'train_tone',
  'cluster',
  'delete_study',
]);
export type JobKind = z.infer<typeof jobKindSchema>;

export const jobStateSchema = z.enum(['waiting', 'running', 'done', 'failed', 'cancelled']);
export type JobState = z.infer<typeof jobStateSchema>;

const stepsSchema = z.object({ done: z.number(), of: z.number() });
/** How far a job has come, in all that is to be done; of a training also in codes that are learnt. */
export const progressSchema = stepsSchema.extend({ codes: stepsSchema.optional() });
export type Progress = z.infer<typeof progressSchema>;

export const jobSchema = z
  .object({
    id: idSchema,
    kind: jobKindSchema,
    state: jobStateSchema,
    progress: progressSchema.nullable(),
    /** Why it failed; a code of an older version reads as that it did. */
    problem: problemSchema.extend({ code: problemCodeSchema.catch('job_failed') }).nullable(),
  })
  .meta({ id: 'Job' });
export type Job = z.infer<typeof jobSchema>;

export const jobParams = studyParams.extend({ job: idSchema });
