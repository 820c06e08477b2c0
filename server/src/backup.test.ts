import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { openDatabase, rows } from './database/index.js';
import { startServer, type TestServer } from '../test/app.js';
import { createDatabase } from '../test/databases.js';
import { importStudy } from '../test/study.js';

let server: TestServer;
let folder: string;
beforeAll(async () => {
  server = await startServer();
  folder = mkdtempSync(join(tmpdir(), 'backups-'));
});
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true });
});

const scripts = fileURLToPath(new URL('../../scripts/', import.meta.url));
const run = (script: string, url: string, ...args: string[]) =>
  execFileSync('bash', [`${scripts}${script}`, ...args], {
    env: { ...process.env, DATABASE_URL: url, BACKUP_FOLDER: folder, BACKUPS_KEPT: '2' },
    stdio: ['ignore', 'pipe', 'pipe'],
  }).toString();

test('backed up while it runs and restored elsewhere, all is there; the newest few are kept', async () => {
  const rowan = await server.enter('Rowan');
  const study = await importStudy(rowan, 'id,Why?\n1,"late, again; \\ and €"\n');
  await study.code((await study.ledger()).ids[0]!, { newCode: 'Late' });
  for (const day of ['01', '02', '03'])
    writeFileSync(join(folder, `yellow-thread-2020-01-${day}T00-00-00Z.dump`), '');
  const file = run('backup.sh', server.url).trim();
  expect(readdirSync(folder).toSorted()).toEqual([
    'yellow-thread-2020-01-03T00-00-00Z.dump',
    file.split('/').at(-1),
  ]);

  const other = await createDatabase();
  const all = async (url: string) => {
    const orm = await openDatabase(url, { migrate: false });
    const em = orm.em.fork();
    const tables = await rows<{ name: string }>(
      em,
      `select relname as name from pg_class where relkind = 'r'
         and relnamespace = 'public'::regnamespace order by 1`,
    );
    const found: Record<string, unknown> = {};
    for (const { name } of tables)
      found[name] = await rows(em, `select to_jsonb(t)::text as row from ${name} t order by 1`);
    await orm.close();
    return found;
  };
  run('restore.sh', other.url, file);
  const before = await all(server.url);
  expect(await all(other.url)).toEqual(before);
  expect(JSON.stringify(before)).toContain('late, again');

  // what is there is replaced only when that is said, and by a whole backup
  const refused = (...args: string[]) => {
    try {
      run('restore.sh', other.url, ...args);
      return 'restored';
    } catch (error) {
      return String(Reflect.get(error as object, 'stderr'));
    }
  };
  expect(refused(file)).toContain('This database holds studies already: 1');
  expect(refused(join(folder, 'yellow-thread-2020-01-03T00-00-00Z.dump'), '--replace')).toContain(
    'is no backup of Yellow Thread',
  );
  expect(await all(other.url)).toEqual(before);
  expect(refused(file, '--replace')).toBe('restored');
  expect(await all(other.url)).toEqual(before);
  await other.drop();
});
