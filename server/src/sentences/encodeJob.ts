import type { EntityManager } from '@mikro-orm/postgresql';
import { enqueueJob, type JobHandler } from '../jobs/index.js';
import { Problem } from '../wording/problems.js';
import { encoderInUse } from './encoder.js';
import { readStudy } from './vectors.js';

/** Reads the texts of a study for meaning. What is read stays so when the job is cancelled or begun again. */
export const encodeStudy: JobHandler = async ({ studyId }, context) => {
  await readStudy(studyId, context);
  return () => Promise.resolve();
};

/** Has the texts of a study read, unless they are being read already. */
export async function enqueueEncoding(
  em: EntityManager,
  job: { studyId: number; accountId: number },
): Promise<void> {
  if (!(await encoderInUse())) return;
  try {
    await enqueueJob(em, { kind: 'encode', questionId: null, payload: {}, ...job });
  } catch (error) {
    if (!(error instanceof Problem && error.code === 'job_under_way')) throw error;
  }
}
