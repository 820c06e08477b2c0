import { openDatabase } from './database/index.js';
import { createThreads } from './jobs/index.js';
import { withoutValues } from './logging.js';
import { startRunners } from './runners.js';
import { stopOnSignal } from './stopOnSignal.js';

// Takes jobs and serves nothing: started on other machines with the same DATABASE_URL, imports and trainings are
// shared out among them and the server.

const databaseUrl = process.env['DATABASE_URL'];
if (!databaseUrl) {
  console.error('DATABASE_URL is not set: say which database the server uses.');
  process.exit(1);
}

const orm = await openDatabase(databaseUrl, { use: 'jobs' });
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
