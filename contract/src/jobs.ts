import { z } from 'zod';
import { idSchema, studyParams } from './ids.js';
import { problemSchema } from './problem.js';

export const jobKindSchema = z.enum(['read', 'import', 'undo_import', 'train']);
export type JobKind = z.infer<typeof jobKindSchema>;

export const jobStateSchema = z.enum(['waiting', 'running', 'done', 'failed', 'cancelled']);
export type JobState = z.infer<typeof jobStateSchema>;

export const jobSchema = z
  .object({
    id: idSchema,
    kind: jobKindSchema,
    state: jobStateSchema,
    progress: z.object({ done: z.number(), of: z.number() }).nullable(),
    problem: problemSchema.nullable(),
  })
  .meta({ id: 'Job' });
export type Job = z.infer<typeof jobSchema>;

export const jobParams = studyParams.extend({ job: idSchema });
