import { randomUUID } from 'node:crypto';
import type { JobKind, Progress } from '@yellow-thread/contract';
import type { EntityManager, MikroORM } from '@mikro-orm/postgresql';
import { isConnectionLost, rows } from '../database/index.js';
import { Problem, problems } from '../wording/problems.js';
import type { Threads } from './threads/pool.js';

/** A job in the hands of a runner. */
export interface RunningJob {
  id: number;
  kind: JobKind;
  studyId: number;
  questionId: number | null;
  createdBy: number;
  payload: unknown;
}

export interface JobContext {
  em: EntityManager;
  threads: Threads;
  /** Aborts when the job is cancelled or lost to another runner. */
  signal: AbortSignal;
  report: (progress: Progress) => void;
}

/**
 * Does the work of a job outside any transaction and returns the function that writes its outcome. That
 * one runs in the transaction that ends the job, so an outcome is written once or not at all. It may give
 * back what is to be done after the commit, when the outcome stands whatever becomes of that.
 */
export type JobHandler = (
  job: RunningJob,
  context: JobContext,
) => Promise<(em: EntityManager) => Promise<void | AfterCommit>>;
export type AfterCommit = (em: EntityManager) => Promise<void>;

const HEARTBEAT_MS = 1000;
/** The queue is looked at even if nobody told of a job: one whose runner died is told of by nobody. */
const POLL_MS = 5000;
const BACK_OFF_MS = { first: 200, most: 5000 };
const LOST_AFTER_SECONDS = 15;
const MOST_ATTEMPTS = 3;
/** No job of its kind takes as long, on a slow machine either: one that does would keep its runner for ever. */
const MOST_MINUTES: Record<JobKind, number> = {
  read: 10,
  import: 60,
  undo_import: 60,
  restore_import: 60,
  train: 180,
  encode: 180,
  train_tone: 60,
  cluster: 30,
  delete_study: 60,
};

export interface JobRunner {
  /** A job waits. */
  wake(): void;
  /** When it last reached the database; null for never. */
  lastBeat(): Date | null;
  /** Stops taking jobs and gives back the one in hand. */
  stop(): Promise<void>;
}

/**
 * Takes jobs from the queue one by one. Any number of runners may do so on any number of machines; a job
 * whose runner went silent is taken up again by another. It takes the kinds that it has handlers for. Whatever becomes of the database or of a job, it goes on.
 */
export function startJobRunner({
  orm,
  threads,
  handlers,
  onError,
  minutes = MOST_MINUTES,
}: {
  orm: MikroORM;
  threads: Threads;
  handlers: Partial<Record<JobKind, JobHandler>>;
  onError: (error: unknown) => void;
  minutes?: Record<JobKind, number> | undefined;
}): JobRunner {
  const runner = randomUUID();
  const kinds = Object.keys(handlers) as JobKind[];
  const stopped = new AbortController();
  let woken = new AbortController();
  let lastBeat: Date | null = null;
  const loop = async () => {
    for (let failed = 0; !stopped.signal.aborted;) {
      // before it looks, so that a job that comes in meanwhile is not slept through
      woken = new AbortController();
      try {
        const found = await takeJob(orm.em.fork(), runner, kinds);
        lastBeat = new Date();
        failed = 0;
        if (found) await runJob(found);
        else await pause(POLL_MS, AbortSignal.any([stopped.signal, woken.signal]));
      } catch (error) {
        onError(error);
        await pause(backOff(failed++), stopped.signal);
      }
    }
  };

  /** Writes how a job ended, as soon as the database is there. */
  const write = async (end: (em: EntityManager) => Promise<unknown>) => {
    for (let failed = 0; ; failed++)
      try {
        await end(orm.em.fork());
        return;
      } catch (error) {
        onError(error);
        // who stops does not wait for a database that is away: a job without a beat is taken up again
        if (stopped.signal.aborted) return;
        await pause(backOff(failed), stopped.signal);
      }
  };

  const runJob = async (job: RunningJob) => {
    const ended = new AbortController();
    let progress: Progress | null = null;
    let isBeating = false;
    const beat = setInterval(() => {
      if (isBeating) return;
      isBeating = true;
      heartbeat(orm.em.fork(), runner, job.id, progress)
        .then((goOn) => {
          lastBeat = new Date();
          if (!goOn) ended.abort();
        })
        .catch(onError)
        .finally(() => {
          isBeating = false;
        });
    }, HEARTBEAT_MS);
    const over = AbortSignal.timeout(minutes[job.kind] * 60_000);
    const signal = AbortSignal.any([ended.signal, stopped.signal, over]);
    try {
      const writeOutcome = await handlers[job.kind]!(job, {
        em: orm.em.fork(),
        threads,
        signal,
        report: (now) => {
          progress = now;
        },
      });
      if (signal.aborted) throw new Error('stopped');
      const after = await orm.em.fork().transactional(async (em) => {
        const outcome = await writeOutcome(em);
        // last, so that until then the job's row is free to tell progress and to be cancelled
        if (
          signal.aborted ||
          !(await endJob(em, { runner, id: job.id, state: 'done', problem: null, progress }))
        )
          throw new Error('lost');
        return outcome;
      });
      await after?.(orm.em.fork()).catch(onError);
    } catch (error) {
      if (stopped.signal.aborted) await write((em) => giveBack(em, runner, job.id));
      else if (ended.signal.aborted)
        await write((em) =>
          endJob(em, { runner, id: job.id, state: 'cancelled', problem: null, progress }),
        );
      else {
        if (!(error instanceof Problem) && !over.aborted) onError(error);
        const problem = over.aborted
          ? problems.tooMuchTime(minutes[job.kind])
          : error instanceof Problem
            ? error
            : problems.workerFailed();
        await write(async (em) => {
          // the database went away, not the job: it is begun again, but for one that takes the database with it
          if (isConnectionLost(error) && (await beginAnew(em, runner, job.id))) return;
          await endJob(em, { runner, id: job.id, state: 'failed', problem });
        });
      }
    } finally {
      clearInterval(beat);
    }
  };

  const running = loop();
  return {
    wake: () => woken.abort(),
    lastBeat: () => lastBeat,
    stop: async () => {
      stopped.abort();
      await running;
    },
  };
}

async function takeJob(
  em: EntityManager,
  runner: string,
  kinds: JobKind[],
): Promise<RunningJob | null> {
  await rows(
    em,
    `update job set state = 'failed', problem = :problems where state = 'running' and attempts >= :mostAttempts
       and heartbeat_at < now() - make_interval(secs => :lostAfterSeconds)`,
    {
      problems: JSON.stringify(asRecord(problems.workerFailed())),
      mostAttempts: MOST_ATTEMPTS,
      lostAfterSeconds: LOST_AFTER_SECONDS,
    },
  );
  const [taken] = await rows<RunningJob>(
    em,
    `update job set state = 'running', runner = :runner, heartbeat_at = now(), attempts = attempts + 1
     where id = (
       select id from job
       where kind = any(:kinds) and (state = 'waiting'
         or (state = 'running' and heartbeat_at < now() - make_interval(secs => :lostAfterSeconds)))
       order by id for update skip locked limit 1)
     returning id, kind, study_id as "studyId", question_id as "questionId",
       created_by as "createdBy", payload`,
    { runner, kinds, lostAfterSeconds: LOST_AFTER_SECONDS },
  );
  return taken ?? null;
}

/** @returns false when the job is to be stopped: cancelled, or taken by another runner */
async function heartbeat(
  em: EntityManager,
  runner: string,
  id: number,
  progress: Progress | null,
): Promise<boolean> {
  const [job] = await rows<{ cancelAsked: boolean }>(
    em,
    `update job set heartbeat_at = now(), progress = coalesce(:progress::jsonb, progress)
     where id = :id and runner = :runner and state = 'running' returning cancel_asked as "cancelAsked"`,
    { progress: progress && JSON.stringify(progress), id, runner },
  );
  return job !== undefined && !job.cancelAsked;
}

async function endJob(
  em: EntityManager,
  {
    runner,
    id,
    state,
    problem,
    progress = null,
  }: {
    runner: string;
    id: number;
    state: 'done' | 'failed' | 'cancelled';
    problem: Problem | null;
    /** How far it came; null where nothing is known of that. */
    progress?: Progress | null;
  },
): Promise<boolean> {
  const ended = await rows(
    em,
    `update job set state = :state, problem = :problem, progress = coalesce(:progress::jsonb, progress) where id = :id and runner = :runner and state = 'running'
       and (not cancel_asked or :state = 'cancelled') returning id`,
    {
      state,
      problem: problem && JSON.stringify(asRecord(problem)),
      progress: progress && JSON.stringify(progress),
      id,
      runner,
    },
  );
  if (ended.length === 0 && state === 'failed')
    await rows(
      em,
      `update job set state = 'cancelled' where id = :id and runner = :runner and state = 'running'`,
      { id, runner },
    );
  return ended.length > 0;
}

/** The server is stopping: another runner, or this one after the restart, begins the job again. */
const giveBack = (em: EntityManager, runner: string, id: number) =>
  rows(
    em,
    `update job set state = 'waiting', runner = null, attempts = attempts - 1
     where id = :id and runner = :runner and state = 'running'`,
    { id, runner },
  );

/** @returns false when it has been begun often enough, or is no longer this runner's */
async function beginAnew(em: EntityManager, runner: string, id: number): Promise<boolean> {
  const waiting = await rows(
    em,
    `update job set state = 'waiting', runner = null
     where id = :id and runner = :runner and state = 'running' and attempts < :mostAttempts and not cancel_asked
     returning 1`,
    { id, runner, mostAttempts: MOST_ATTEMPTS },
  );
  return waiting.length > 0;
}

const backOff = (failed: number) => Math.min(BACK_OFF_MS.first * 2 ** failed, BACK_OFF_MS.most);

const asRecord = (problem: Problem) => ({ code: problem.code, sentence: problem.message });

function pause(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    if (signal.aborted) {
      resolve();
      return;
    }
    const wake = () => {
      clearTimeout(timer);
      resolve();
    };
    const timer = setTimeout(() => {
      signal.removeEventListener('abort', wake);
      resolve();
    }, ms);
    signal.addEventListener('abort', wake, { once: true });
  });
}
