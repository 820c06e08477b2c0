import type { Job, JobKind } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, row } from '../database/index.js';
import { problems } from '../wording/problems.js';

/** Where it is told that a job waits. */
export const JOB_CHANNEL = 'job_waits';

const columns = 'id, kind, state, progress, problem';

/**
 * Puts a job in the queue.
 *
 * @throws Problem job_under_way when the same is waiting or running for the study or question
 */
export async function enqueueJob(
  em: EntityManager,
  job: {
    kind: JobKind;
    studyId: number;
    questionId: number | null;
    accountId: number;
    payload: unknown;
  },
): Promise<Job> {
  const [queued] = await rows<Job>(
    em,
    `insert into job (kind, study_id, question_id, created_by, payload) values (:kind, :studyId, :questionId, :accountId, :payload)
     on conflict do nothing returning ${columns}`,
    {
      kind: job.kind,
      studyId: job.studyId,
      questionId: job.questionId,
      accountId: job.accountId,
      payload: JSON.stringify(job.payload),
    },
  );
  if (!queued) throw problems.jobUnderWay();
  // heard after the commit, when the job is there
  await rows(em, `select pg_notify('${JOB_CHANNEL}', '')`);
  return queued;
}

export async function findJob(em: EntityManager, studyId: number, id: number): Promise<Job> {
  const [job] = await rows<Job>(
    em,
    `select ${columns} from job where study_id = :studyId and id = :id`,
    { studyId, id },
  );
  if (!job) throw problems.notFound('job');
  return job;
}

/** The newest job of a kind in a study, or for one of its questions, whatever became of it. */
export async function newestJob(
  em: EntityManager,
  kind: JobKind,
  of: { studyId: number } | { questionId: number },
): Promise<Job | null> {
  const [job] = await rows<Job>(
    em,
    `select ${columns} from job where kind = :kind
       and (study_id = :studyId or question_id = :questionId) order by id desc limit 1`,
    { kind, studyId: null, questionId: null, ...of },
  );
  return job ?? null;
}

/** The newest job that reads a sheet. */
export async function newestSheetJob(em: EntityManager, sheetId: number): Promise<Job | null> {
  const [job] = await rows<Job>(
    em,
    `select ${columns} from job where kind = 'read' and (payload->>'sheetId')::int = :sheetId
     order by id desc limit 1`,
    { sheetId },
  );
  return job ?? null;
}

/** Cancels at once what is still waiting; asks what is running to stop. */
export async function cancelJob(em: EntityManager, studyId: number, id: number): Promise<Job> {
  await findJob(em, studyId, id);
  return row<Job>(
    em,
    `update job set
       cancel_asked = true,
       state = case when state = 'waiting' then 'cancelled' else state end
     where id = :id returning ${columns}`,
    { id },
  );
}
