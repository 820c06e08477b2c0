import { statfs } from 'node:fs/promises';
import { api, type Health } from '@yellow-thread/contract';
import type { AppOptions } from './appOptions.js';
import { rows } from './database/index.js';
import type { App } from './app.types.js';
import { route } from './route.js';

/** A runner that did not reach the database for so long is not at work. */
const SILENT_MS = 30_000;
/** With less than this an import of a large sheet may fill the disk. */
const LOW_DISK_BYTES = 1024 ** 3;

/** Says to people and machines whether the server can do its work: 200 if it can, 503 if it cannot. */
export function healthRoute(
  app: App,
  { orm, beats = () => [], dataFolder }: Pick<AppOptions, 'orm' | 'beats' | 'dataFolder'>,
): void {
  route(app, api.getHealth, async (_, reply) => {
    const isReachable = await rows(orm.em.fork(), 'select 1').then(
      () => true,
      () => false,
    );
    const runners = beats().map((beat): Health['runners'][number] => ({
      lastBeat: beat?.toISOString() ?? null,
      isAtWork: beat !== null && Date.now() - beat.getTime() < SILENT_MS,
    }));
    const disk = dataFolder ? await readDisk(dataFolder) : null;
    const isWell =
      isReachable && runners.every((runner) => runner.isAtWork) && disk?.isLow !== true;
    return reply
      .code(isWell ? 200 : 503)
      .send({ database: isReachable ? 'reachable' : 'away', runners, disk });
  });
}

async function readDisk(folder: string): Promise<Health['disk']> {
  const { bavail, bsize } = await statfs(folder);
  const freeBytes = bavail * bsize;
  return { freeBytes, isLow: freeBytes < LOW_DISK_BYTES };
}
