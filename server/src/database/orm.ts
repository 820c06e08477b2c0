import { readdir } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { Migrator } from '@mikro-orm/migrations';
import { MikroORM } from '@mikro-orm/postgresql';
import pg from 'pg';
import * as entities from './entities/index.js';

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
    entities: Object.values(entities),
    extensions: [Migrator],
    // compiled .js when run from dist, .ts when run from src
    migrations: { path: here('./migrations'), pathTs: here('./migrations'), snapshot: false },
    pool,
    // compiling a query takes longer than any of ours runs
    driverOptions: { connection: { options: `-c jit=off ${options}` } },
  });
  if (migrate) await bringUpToDate(orm);
  return orm;
}

/** A number of this program's own among advisory locks. */
const MIGRATION_LOCK = 7_164_310;

/**
 * Brings the tables up to date; of servers that start at once one does it, and the others wait.
 *
 * @throws Error where a newer version of the program was here
 */
async function bringUpToDate(orm: MikroORM): Promise<void> {
  const lock = new pg.Client(orm.config.getClientUrl());
  await lock.connect();
  try {
    await lock.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    const executed = await orm.migrator.getExecutedMigrations();
    const own = new Set(await ownMigrations());
    const foreign = executed.filter(({ name }) => !own.has(name));
    if (foreign.length > 0)
      throw new Error(
        `the database was used by a newer version (it has ${foreign[0]!.name}): start that version, or restore an older database.`,
      );
    await orm.migrator.up();
  } catch (error) {
    await orm.close();
    throw error;
  } finally {
    await lock.end();
  }
}

const ownMigrations = async () =>
  (await readdir(here('./migrations'))).map((file) => file.replace(/\..*$/u, ''));
