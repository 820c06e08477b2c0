import { fileURLToPath } from 'node:url';
import { buildApp, builtWeb, closeInOrder } from './app.js';
import { AccountEntity, openDatabase } from './database/index.js';
import { loadDemoStudy } from './demo/index.js';
import { keepHouse } from './housekeeping.js';
import { createThreads } from './jobs/index.js';
import { ensureDemoResearcher, ensureOwner } from './people/index.js';
import { startRunners } from './runners.js';
import { readSettings } from './settings.js';
import { orGiveUp, outliveOutput, stopOnSignal } from './process.js';

outliveOutput();
const settings = await orGiveUp(() => readSettings(process.env));
const { databaseUrl, host, port } = settings;
const demoFolder = settings.demoFolder ?? fileURLToPath(new URL('../../demo', import.meta.url));

const orm = await orGiveUp(() => openDatabase(databaseUrl));
const password = await ensureOwner(orm.em.fork());
// printed at once: if the start failed further on, it could not be shown again
if (password)
  console.log(`Sign in as “owner” with the one-time password ${password} — it is shown only now.`);
const demo = await ensureDemoResearcher(orm.em.fork());
const owners = await orm.em
  .fork()
  .find(AccountEntity, { passwordHash: { $ne: null } }, { orderBy: { id: 'asc' }, limit: 1 });
await loadDemoStudy(orm.em.fork(), demoFolder, [demo.id, ...owners.map((owner) => owner.id)]);

const threads = createThreads();
const jobs = await openDatabase(databaseUrl, { migrate: false, use: 'jobs' });
const app = await buildApp({
  ...settings,
  orm,
  threads,
  beats: () => runners.beats(),
  web: builtWeb,
  log: process.stdout,
});
const runners = startRunners(jobs, threads, (error) => {
  app.log.error({ err: error }, 'a job failed');
});
const endHousekeeping = keepHouse(orm, (error) => {
  app.log.error({ err: error }, 'something was not cleared away');
});

stopOnSignal(async () => {
  endHousekeeping();
  await closeInOrder(app);
  await runners.stop();
  await threads.close();
  await jobs.close();
  await orm.close();
});

await orGiveUp(() => app.listen({ host, port }));
console.log(`\nYellow Thread is ready: http://${host}:${port}\n`);
