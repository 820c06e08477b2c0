import { fileURLToPath } from 'node:url';
import { Migrator } from '@mikro-orm/migrations';
import { MikroORM } from '@mikro-orm/postgresql';
import { entities } from './entities.js';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** Connects to the database at `url` and, unless told otherwise, brings its tables up to date. */
export async function openDatabase(url: string, { migrate = true } = {}): Promise<MikroORM> {
  const orm = await MikroORM.init({
    clientUrl: url,
    entities,
    extensions: [Migrator],
    // compiled .js when run from dist, .ts when run from src
    migrations: { path: here('./migrations'), pathTs: here('./migrations'), snapshot: false },
    pool: { min: 0, max: 10 },
    // compiling a query takes longer than any of ours runs
    driverOptions: { connection: { options: '-c jit=off' } },
  });
  if (migrate) await orm.migrator.up();
  return orm;
}
