import { fileURLToPath } from 'node:url';
import { buildApp, builtWeb } from './app.js';
import { openDatabase, rows } from './database/index.js';
import { createThreads } from './jobs/index.js';
import { ensureDemoResearcher, ensureOwner, removeExpiredSessions } from './people/index.js';
import { loadDemoStudy } from './demo/index.js';
import { startRunners } from './runners.js';
import { stopOnSignal } from './stopOnSignal.js';

const host = process.env['HOST'] ?? '127.0.0.1';
const port = Number(process.env['PORT'] ?? 4310);
const databaseUrl = process.env['DATABASE_URL'];
const demoFolder =
  process.env['DEMO_FOLDER'] ?? fileURLToPath(new URL('../../demo', import.meta.url));
const onLoopback = ['127.0.0.1', '::1', 'localhost'].includes(host);

if (!databaseUrl) {
  console.error('DATABASE_URL is not set: start with `npm start`, which sets up a database.');
  process.exit(1);
}

const orm = await openDatabase(databaseUrl);
const password = await ensureOwner(orm.em.fork());
// told at once: were the start to fail further on, it could not be told again
if (password)
  console.log(`Sign in as “owner” with the one-time password ${password} — it is shown only now.`);
const demo = await ensureDemoResearcher(orm.em.fork());
const owners = await rows<{ id: number }>(
  orm.em.fork(),
  'select id from account where password_hash is not null order by id limit 1',
);
await loadDemoStudy(orm.em.fork(), demoFolder, [demo.id, ...owners.map((owner) => owner.id)]);
await removeExpiredSessions(orm.em.fork());

const threads = createThreads();
const jobs = await openDatabase(databaseUrl, { migrate: false, use: 'jobs' });
const app = await buildApp({
  orm,
  threads,
  demoOffered: onLoopback,
  beats: () => runners.beats(),
  web: builtWeb,
  ...(process.env['LOG'] !== 'off' && { log: process.stdout }),
});
const runners = startRunners(jobs, threads, (error) => {
  app.log.error({ err: error }, 'a job failed');
});

stopOnSignal(async () => {
  await app.close();
  await runners.stop();
  await threads.close();
  await jobs.close();
  await orm.close();
});

await app.listen({ host, port });
console.log(`\nYellow Thread is ready: http://${host}:${port}\n`);
