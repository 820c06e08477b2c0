import type { MikroORM } from '@mikro-orm/postgresql';
import { listenTo } from './database/index.js';
import { JOB_CHANNEL, startJobRunner, type Threads } from './jobs/index.js';
import { train } from './learning/index.js';
import { gatherAnswers } from './look/index.js';
import { encodeStudy } from './sentences/index.js';
import { importSheet, readSheetJob, restoreImport, undoImport } from './sheet/index.js';
import { deleteStudyJob } from './study/index.js';
import { trainTone } from './tone/index.js';

const ofSheetsAndStudies = {
  read: readSheetJob,
  import: importSheet,
  undo_import: undoImport,
  restore_import: restoreImport,
  delete_study: deleteStudyJob,
};

export interface Runners {
  /** When each last reached the database; null for never. */
  beats: () => (Date | null)[];
  /** Stops them, giving back what is in hand. */
  stop: () => Promise<void>;
}

/**
 * Starts what takes jobs from the queue.
 *
 * @param orm of its own: see `openDatabase`
 */
export function startRunners(
  orm: MikroORM,
  threads: Threads,
  onError: (error: unknown) => void,
): Runners {
  // no sheet waits until a training is over, and none until another one is
  const all = [
    ofSheetsAndStudies,
    ofSheetsAndStudies,
    { train, train_tone: trainTone },
    { encode: encodeStudy },
    { cluster: gatherAnswers },
  ];
  const runners = all.map((handlers) => startJobRunner({ orm, threads, handlers, onError }));
  const wake = () => runners.forEach((runner) => runner.wake());
  const url = orm.config.getClientUrl();
  const listening = listenTo(url, JOB_CHANNEL, { onMessage: wake, onAgain: wake, onError });
  return {
    beats: () => runners.map((runner) => runner.lastBeat()),
    stop: async () => {
      await listening.close();
      await Promise.all(runners.map((runner) => runner.stop()));
    },
  };
}
