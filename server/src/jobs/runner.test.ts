import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { MikroORM } from '@mikro-orm/postgresql';
import type { Job } from '@yellow-thread/contract';
import pg from 'pg';
import { createDatabase } from '../../test/databases.js';
import { openDatabase, row, rows } from '../database/index.js';
import { problems } from '../wording/problems.js';
import { cancelJob, enqueueJob, findJob } from './jobs.js';
import { startJobRunner, type JobHandler, type JobRunner } from './runner.js';
import type { Threads } from './threads/pool.js';

let database: Awaited<ReturnType<typeof createDatabase>>;
let orm: MikroORM;
let studyId: number;
let accountId: number;
let runners: JobRunner[] = [];
const errors: unknown[] = [];
const noThreads: Threads = {
  run: () => Promise.reject(new Error('none')),
  close: () => Promise.resolve(),
};

beforeAll(async () => {
  database = await createDatabase();
  orm = await openDatabase(database.url, { migrate: false });
  accountId = (
    await row<{ id: number }>(orm.em.fork(), `insert into account (name) values ('a') returning id`)
  ).id;
});
beforeEach(async () => {
  errors.length = 0;
  studyId = (
    await row<{ id: number }>(
      orm.em.fork(),
      `insert into study (name, purpose) values ('s', '') returning id`,
    )
  ).id;
});
afterAll(async () => {
  await orm.close();
  await database.drop();
});

const enqueue = () =>
  enqueueJob(orm.em.fork(), { kind: 'import', studyId, questionId: null, accountId, payload: {} });
const rename = async () =>
  Promise.resolve(async (em: Parameters<Awaited<ReturnType<JobHandler>>>[0]) => {
    await rows(em, `update study set name = name || '!' where id = :studyId`, { studyId });
  });
const studyName = async () =>
  (
    await row<{ name: string }>(orm.em.fork(), 'select name from study where id = :studyId', {
      studyId,
    })
  ).name;
const run = (handler: JobHandler, minutes = 60) => {
  const others = {
    read: 60,
    undo_import: 60,
    restore_import: 60,
    train: 60,
    encode: 60,
    train_tone: 60,
    cluster: 60,
    delete_study: 60,
  };
  const all = { ...others, import: minutes };
  const onError = (error: unknown) => errors.push(error);
  runners.push(
    startJobRunner({
      orm,
      threads: noThreads,
      handlers: { import: handler },
      onError,
      minutes: all,
    }),
  );
};
const stopAll = async () => {
  await Promise.all(runners.map((runner) => runner.stop()));
  runners = [];
};
async function until(id: number, reached: (job: Job) => boolean): Promise<Job> {
  for (;;) {
    const job = await findJob(orm.em.fork(), studyId, id);
    if (reached(job)) return job;
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
}
const ended = (job: Job) => !['waiting', 'running'].includes(job.state);

test('a job that takes too long is ended with a sentence, and the next one has its turn', async () => {
  const job = await enqueue();
  run(
    (_, { signal }) =>
      new Promise((_resolve, reject) =>
        signal.addEventListener('abort', () => reject(new Error('ended'))),
      ),
    1 / 600,
  );
  const { problem } = await until(job.id, ended);
  await stopAll();
  expect([problem?.code, await studyName()]).toEqual(['too_much_time', 's']);
  expect(errors).toEqual([]);
});

test('many runners do a job once; the same job cannot wait twice', async () => {
  const job = await enqueue();
  await expect(enqueue()).rejects.toMatchObject({ code: 'job_under_way' });
  for (let n = 0; n < 4; n++) run(rename);
  expect((await until(job.id, ended)).state).toBe('done');
  await stopAll();
  expect(await studyName()).toBe('s!');
});

test('a job whose runner went silent is resumed', async () => {
  const job = await enqueue();
  await rows(
    orm.em.fork(),
    `update job set state = 'running', runner = gen_random_uuid(), attempts = 1,
       heartbeat_at = now() - interval '1 minute' where id = :jobId`,
    { jobId: job.id },
  );
  run(rename);
  expect((await until(job.id, ended)).state).toBe('done');
  await stopAll();
});

test('a job given back by a runner that stops is done by the next', async () => {
  const job = await enqueue();
  run(
    (_, { signal }) =>
      new Promise((_, reject) => signal.addEventListener('abort', () => reject(new Error('stop')))),
  );
  await until(job.id, (now) => now.state === 'running');
  await stopAll();
  expect((await findJob(orm.em.fork(), studyId, job.id)).state).toBe('waiting');
  run(rename);
  expect((await until(job.id, ended)).state).toBe('done');
  await stopAll();
  expect(await studyName()).toBe('s!');
});

test('a cancelled job ends as such and writes nothing, even when its work was done already', async () => {
  const job = await enqueue();
  run(async () => {
    await cancelJob(orm.em.fork(), studyId, job.id);
    return rename();
  });
  expect((await until(job.id, ended)).state).toBe('cancelled');
  await stopAll();
  expect(await studyName()).toBe('s');
});

test('a failure is told in a sentence; what is not meant for people is only logged', async () => {
  const told = await enqueue();
  run(() => Promise.reject(problems.nothingSettled()));
  expect((await until(told.id, ended)).problem).toEqual({
    code: 'nothing_settled',
    sentence: problems.nothingSettled().message,
  });
  await stopAll();
  expect(errors).toEqual([]);
  const broken = await enqueue();
  run(() => Promise.reject(new Error('secret detail')));
  expect((await until(broken.id, ended)).problem?.code).toBe('job_failed');
  await stopAll();
  expect(errors).toEqual([new Error('secret detail')]);
});

/** The database as somebody beside the product sees it. */
async function beside<Result>(work: (client: pg.Client, name: string) => Promise<Result>) {
  const url = new URL(database.url);
  const name = url.pathname.slice(1);
  url.pathname = '/postgres';
  const client = new pg.Client(url.href);
  await client.connect();
  try {
    return await work(client, name);
  } finally {
    await client.end();
  }
}
const letIn = (isOpen: boolean) =>
  beside(async (client, name) => {
    await client.query(`alter database ${name} allow_connections ${isOpen}`);
    if (!isOpen)
      await client.query(
        'select pg_terminate_backend(pid) from pg_stat_activity where datname = $1',
        [name],
      );
  });

test('a runner that cannot write how a job ended writes it when the database is back, and goes on', async () => {
  const failing = await enqueue();
  run(async ({ id }) => {
    if (id !== failing.id) return rename();
    await letIn(false);
    throw problems.nothingSettled();
  });
  // it has tried, and tried again
  while (errors.length < 3) await new Promise((resolve) => setTimeout(resolve, 30));
  await letIn(true);
  expect((await until(failing.id, ended)).problem?.code).toBe('nothing_settled');
  const next = await enqueue();
  runners[0]!.wake();
  expect((await until(next.id, ended)).state).toBe('done');
  expect(runners[0]!.lastBeat()!.getTime()).toBeLessThanOrEqual(Date.now());
  await stopAll();
});

test('a job that the database went away from is begun again, but not for ever', async () => {
  const lostTimes = async (times: number) => {
    const job = await enqueue();
    let begun = 0;
    run(async () => {
      const write = await rename();
      return async (em) => {
        await write(em);
        if ((begun += 1) <= times) await rows(em, 'select pg_terminate_backend(pg_backend_pid())');
      };
    });
    const { state } = await until(job.id, ended);
    await stopAll();
    return { state, begun, name: await studyName() };
  };
  expect(await lostTimes(1)).toEqual({ state: 'done', begun: 2, name: 's!' });
  expect(await lostTimes(Infinity)).toEqual({ state: 'failed', begun: 3, name: 's!' });
});

test('an outcome that cannot be written leaves nothing half-written', async () => {
  const job = await enqueue();
  run(async () => {
    const write = await rename();
    return async (em) => {
      await write(em);
      throw new Error('in the middle');
    };
  });
  expect((await until(job.id, ended)).state).toBe('failed');
  await stopAll();
  expect(await studyName()).toBe('s');
});
