import { openDatabase } from './database/index.js';
import { createThreads } from './jobs/index.js';
import { withoutValues } from './logging.js';
import { startRunners } from './runners.js';
import { orGiveUp, stopOnSignal } from './process.js';
import { readSettings } from './settings.js';

// Takes jobs and serves nothing: started on other machines with the same DATABASE_URL, imports and trainings are
// shared out among them and the server.

const { databaseUrl } = await orGiveUp(() => readSettings(process.env));
const orm = await orGiveUp(() => openDatabase(databaseUrl, { use: 'jobs' }));
const threads = createThreads();
const runners = startRunners(orm, threads, (error) => {
  console.error('a job failed', error instanceof Error ? withoutValues(error) : '');
});

stopOnSignal(async () => {
  await runners.stop();
  await threads.close();
  await orm.close();
});
console.log('A worker is ready.');
