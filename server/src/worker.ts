import { openDatabase } from './database/index.js';
import { createThreads } from './jobs/index.js';
import { withoutValues } from './logging.js';
import { startRunners } from './runners.js';

// Takes jobs and serves nothing: started on other machines with the same DATABASE_URL, imports and trainings are
// shared out among them and the server.

const databaseUrl = process.env['DATABASE_URL'];
if (!databaseUrl) {
  console.error('DATABASE_URL is not set: say which database the server uses.');
  process.exit(1);
}

const orm = await openDatabase(databaseUrl);
const threads = createThreads();
const stopRunners = startRunners(orm, threads, (error) => {
  console.error('a job failed', error instanceof Error ? withoutValues(error) : '');
});

let stopping = false;
async function stop() {
  if (stopping) return;
  stopping = true;
  await stopRunners();
  await threads.close();
  await orm.close();
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
console.log('A worker is ready.');
