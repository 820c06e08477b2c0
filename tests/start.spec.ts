import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { expect, request, test, type APIRequestContext } from '@playwright/test';
import { ended, ownersPassword, project, startMachine } from './machine.js';

const dataFolder = `${project}.test/start`;
const port = Number(process.env['TEST_PORT'] ?? 4319) + 1;
const baseURL = `http://127.0.0.1:${port}`;
const postmasterFile = `${dataFolder}/postgres/cluster/postmaster.pid`;

async function enter(
  api: APIRequestContext,
): Promise<{ study: number; question: number; headers: Record<string, string> }> {
  const session = (await (await api.post('/api/session/demo')).json()) as { csrfToken: string };
  const headers = { 'csrf-token': session.csrfToken };
  const { studies } = (await (await api.get('/api/studies')).json()) as {
    studies: { id: number }[];
  };
  const study = studies[0]!.id;
  const detail = (await (await api.get(`/api/studies/${study}`)).json()) as {
    questions: { id: number }[];
  };
  return { study, question: detail.questions[0]!.id, headers };
}

/** The product's own database, asked by somebody beside the product. */
const databaseUrl = () =>
  execFileSync('bash', [`${project}scripts/pg.sh`, 'url'], {
    env: { ...process.env, PG_FOLDER: `${dataFolder}/postgres` },
    encoding: 'utf8',
  }).trim();
const sql = (text: string) =>
  execFileSync('psql', [databaseUrl(), '-Atqc', text], { encoding: 'utf8' }).trim();

/** Begins to settle a code in bulk, and comes back when that waits in its midst for a row that is held from outside. */
async function beginToSettle(
  api: APIRequestContext,
  { study, question, headers }: Awaited<ReturnType<typeof enter>>,
) {
  const jobs = `select count(*) from job where state in ('waiting', 'running')`;
  await expect.poll(() => sql(jobs), { timeout: 90_000 }).toBe('0');
  const code = sql(`select code_id from open_suggestion where question_id = ${question}
    group by code_id order by count(*) desc, code_id limit 1`);
  const ofCode = `from suggestion where question_id = ${question} and code_id = '${code}'`;
  const path = `/api/studies/${study}/questions/${question}/review/${code}`;
  const { runId } = (await (await api.get(path)).json()) as { runId: number };
  const settle = () =>
    api.post(`${path}/settle`, { headers, data: { runId, threshold: 0, side: 'above' } });

  const holder = spawn('psql', [databaseUrl(), '-Atq']);
  holder.stdin.write(`begin; select 'held' from suggestion where ctid = (
    select ctid ${ofCode} order by probability limit 1) for update;\n`);
  await new Promise((resolve) => holder.stdout.once('data', resolve));
  const outcome = settle().then(
    () => 'answered',
    () => 'cut off',
  );
  const waiting = `select count(*) from pg_stat_activity where wait_event_type = 'Lock'`;
  await expect.poll(() => sql(waiting)).toBe('1');
  const done = () =>
    sql(`select count(*) filter (where bulk), (select count(*) from mention where code_id = '${code}'),
      (select count(*) from change) ${ofCode}`);
  return { settle, outcome, done };
}

test('starts with the demo, survives a kill -9 with nothing lost or half done, and stops in order', async ({
  page,
}) => {
  test.setTimeout(420_000);
  rmSync(dataFolder, { recursive: true, force: true });
  const first = await startMachine(dataFolder, port);
  const { product, output } = first;

  // the owner comes in by the printed password, which lets them choose one and nothing else
  const oneTime = ownersPassword(first);
  await page.goto(baseURL);
  await page.getByLabel('Name').fill('owner');
  await page.getByLabel('Password').fill('not this one');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('Wrong name or password');
  await page.getByLabel('Password').fill(oneTime);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByLabel('New password').fill('a ferry in the fog');
  await page.getByRole('button', { name: 'Keep this password' }).click();
  await expect(page.getByRole('link', { name: /^Brindle Sound ferry/ })).toBeVisible();

  // the first backup is made by itself, and told of at the start
  const backups = `${dataFolder}/backups`;
  expect(output()).toContain(`Backups: ${backups}, every 24 hours`);
  const made = () =>
    existsSync(backups) ? readdirSync(backups).filter((name) => name.endsWith('.dump')).length : 0;
  await expect.poll(made).toBe(1);

  const api = await request.newContext({ baseURL });
  const entered = await enter(api);
  const { study, question, headers } = entered;
  const ledger = `/api/studies/${study}/questions/${question}/ledger`;
  const openOnes = async () =>
    (await (await api.get(`${ledger}?show=open&same=apart`)).json()) as {
      ids: number[];
      total: number;
    };
  const before = await openOnes();
  const settled = await api.put(`/api/studies/${study}/responses/${before.ids[0]!}/settlement`, {
    headers,
    data: { settled: true },
  });
  expect(settled.status()).toBe(200);
  const bulk = await beginToSettle(api, entered);
  const undone = bulk.done();

  // everything at once, as a power cut would: the start script, the server, PostgreSQL
  const postmaster = Number(readFileSync(postmasterFile, 'utf8').split('\n')[0]);
  process.kill(-product.pid!, 'SIGKILL');
  process.kill(postmaster, 'SIGKILL');
  await ended(product);
  expect(await bulk.outcome).toBe('cut off');

  const again = await startMachine(dataFolder, port);
  expect(again.output()).not.toContain('one-time password');
  // the session is still good, and what was acknowledged is there
  const after = await openOnes();
  expect(after.total).toBe(before.total - 1);
  expect(after.ids[0]).toBe(before.ids[1]);
  // of what was cut off in its midst nothing is there, and it can be done again
  expect(bulk.done()).toBe(undone);
  const { decided } = (await (await bulk.settle()).json()) as { decided: number };
  expect(decided).toBeGreaterThan(10);
  expect(bulk.done().split('|')[0]).toBe(String(decided));

  // a second one on the same data is refused, and leaves this one alone
  const second = spawnSync('npm', ['start', '--silent'], {
    cwd: project,
    env: { ...process.env, PORT: String(port + 1), DATA_FOLDER: dataFolder },
    encoding: 'utf8',
  });
  expect([second.status, second.stderr]).toEqual([1, expect.stringContaining('runs already')]);

  // a database that dies is started again, where the server finds it
  process.kill(Number(readFileSync(postmasterFile, 'utf8').split('\n')[0]), 'SIGKILL');
  const health = async () =>
    ((await (await api.get('/api/health')).json()) as { database: string }).database;
  const unsettle = () =>
    api.put(`/api/studies/${study}/responses/${before.ids[0]!}/settlement`, {
      headers,
      data: { settled: false },
    });
  await expect.poll(health).toBe('away');
  expect(await (await unsettle()).json()).toMatchObject({ code: 'database_away' });
  await expect.poll(health, { timeout: 60_000 }).toBe('reachable');
  await expect.poll(async () => (await unsettle()).status(), { timeout: 60_000 }).toBe(200);

  // another machine takes jobs from the same database, until it is asked to stop
  const worker = spawn('npm', ['run', '--silent', 'worker'], {
    cwd: project,
    env: { ...process.env, DATABASE_URL: databaseUrl() },
  });
  let said = '';
  worker.stdout.on('data', (chunk) => (said += String(chunk)));
  await expect.poll(() => said, { timeout: 60_000 }).toContain('A worker is ready.');
  worker.kill('SIGTERM');
  await ended(worker);
  expect(worker.exitCode).toBe(0);

  await again.stop();
  await expect(api.get('/api/session')).rejects.toThrow(/ECONNREFUSED/);
  expect(existsSync(postmasterFile)).toBe(false);
});
