import { execFileSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import pg from 'pg';

const project = fileURLToPath(new URL('../..', import.meta.url));
const migrations = fileURLToPath(new URL('../src/database/migrations/', import.meta.url));

/** Runs the script that keeps a PostgreSQL. @returns what it prints */
export const pgScript = (args: string[], env: Record<string, string>): string =>
  execFileSync('bash', [`${project}scripts/pg.sh`, ...args], {
    encoding: 'utf8',
    env: { ...process.env, ...env },
  }).trim();

/** Starts the tests' PostgreSQL and migrates a template once, named after the migrations' contents. */
export async function prepareTemplate(): Promise<void> {
  const url = pgScript(['start', '--unsafe'], { PG_FOLDER: `${project}.test/postgres` });
  const hash = createHash('sha256');
  for (const file of readdirSync(migrations).toSorted())
    hash.update(file).update(readFileSync(migrations + file));
  const template = `template_${hash.digest('hex').slice(0, 12)}`;
  process.env['TEST_DATABASE_URL'] = url;
  process.env['TEST_TEMPLATE'] = template;
  await asAdmin(url, async (client) => {
    const found = await client.query('select 1 from pg_database where datname = $1', [template]);
    if (found.rowCount) return;
    await client.query(`drop database if exists ${template}_new with (force)`);
    await client.query(`create database ${template}_new`);
    // in a process of its own: MikroORM loads migrations by itself, which needs tsx, not Jest's loader
    execFileSync(
      process.execPath,
      [
        '--conditions=source',
        '--import',
        'tsx',
        fileURLToPath(new URL('migrate.ts', import.meta.url)),
      ],
      {
        cwd: project,
        stdio: ['ignore', 'ignore', 'inherit'],
        env: {
          ...process.env,
          NODE_OPTIONS: '',
          DATABASE_URL: inDatabase(url, `${template}_new`),
        },
      },
    );
    await client.query(`alter database ${template}_new rename to ${template}`);
  });
}

/** A database of its own, migrated and empty. */
export async function createDatabase(): Promise<{ url: string; drop: () => Promise<void> }> {
  const server = process.env['TEST_DATABASE_URL']!;
  const name = `test_${randomBytes(6).toString('hex')}`;
  await asAdmin(server, (client) =>
    client.query(`create database ${name} template ${process.env['TEST_TEMPLATE']!}`),
  );
  return {
    url: inDatabase(server, name),
    drop: async () => {
      await asAdmin(server, async (client) => {
        // not by force: that may not end an autovacuum, which a plain drop has PostgreSQL end itself
        await client.query(
          'select pg_terminate_backend(pid) from pg_stat_activity where datname = $1 and usename = current_user',
          [name],
        );
        await client.query(`drop database ${name}`);
      });
    },
  };
}

const inDatabase = (url: string, name: string) => {
  const changed = new URL(url);
  changed.pathname = `/${name}`;
  return changed.href;
};

async function asAdmin<Result>(
  url: string,
  work: (client: pg.Client) => Promise<Result>,
): Promise<Result> {
  const client = new pg.Client({ connectionString: inDatabase(url, 'postgres') });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}
