import { fileURLToPath } from 'node:url';
import { Migrator } from '@mikro-orm/migrations';
import { MikroORM } from '@mikro-orm/postgresql';
import { entities } from './entities.js';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** A request waits no longer for a connection, or for a row that somebody else writes, than a person would. */
const forRequests = {
  pool: { min: 0, max: 10, acquireTimeoutMillis: 5_000 },
  options: '-c lock_timeout=10s',
};
/** Imports into one study take turns, however long one takes. */
const forJobs = { pool: { min: 0, max: 10 }, options: '' };

/**
 * Connects to the database at `url` and, unless told otherwise, brings its tables up to date.
 *
 * @param use jobs have connections of their own, so that no request waits for one that a job holds
 */
export async function openDatabase(
  url: string,
  { migrate = true, use = 'requests' }: { migrate?: boolean; use?: 'requests' | 'jobs' } = {},
): Promise<MikroORM> {
  const { pool, options } = use === 'jobs' ? forJobs : forRequests;
  const orm = await MikroORM.init({
    clientUrl: url,
    entities,
    extensions: [Migrator],
    // compiled .js when run from dist, .ts when run from src
    migrations: { path: here('./migrations'), pathTs: here('./migrations'), snapshot: false },
    pool,
    // compiling a query takes longer than any of ours runs
    driverOptions: { connection: { options: `-c jit=off ${options}` } },
  });
  if (migrate) await orm.migrator.up();
  return orm;
}
