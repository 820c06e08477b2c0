import type { MikroORM } from '@mikro-orm/postgresql';
import { startJobRunner, type Threads } from './jobs/index.js';
import { train } from './learning/index.js';
import { importSheet, readSheetJob, undoImport } from './sheet/index.js';

const handlers = { read: readSheetJob, import: importSheet, undo_import: undoImport, train };

/** Starts what takes jobs from the queue. @returns what stops it, giving back what is in hand */
export function startRunners(
  orm: MikroORM,
  threads: Threads,
  onError: (error: unknown) => void,
): () => Promise<void> {
  // two: a sheet need not wait until a training is over
  const runners = [1, 2].map(() => startJobRunner(orm, threads, handlers, onError));
  return async () => {
    await Promise.all(runners.map((runner) => runner.stop()));
  };
}
