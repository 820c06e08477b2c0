import { execFileSync } from 'node:child_process';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { MikroORM } from '@mikro-orm/postgresql';
import { readPeople } from '../groups/index.js';
import { importStudy } from '../../test/study.js';
import { startServer, type TestServer } from '../../test/app.js';
import { pgScript } from '../../test/databases.js';
import { openDatabase, readDataVersion, rows, compactDataVersions } from './index.js';

let server: TestServer;
let restored: MikroORM;
const second = { PG_FOLDER: `${process.cwd()}/.test/second` };

beforeAll(async () => {
  server = await startServer();
  await importStudy(
    await server.enter('Ash'),
    'ID,What could be better?\n1,Cheaper fares please\n2,More boats in winter\n3,Nothing to add at all\n',
  );
  const { url } = server;
  const other = pgScript(['start', '--unsafe'], second);
  const dump = execFileSync('pg_dump', ['--no-owner', url], { maxBuffer: 2 ** 28 });
  execFileSync('psql', [other, '-qc', 'drop schema public cascade; create schema public']);
  execFileSync('psql', [other, '-q', '-v', 'ON_ERROR_STOP=1'], {
    input: dump,
    stdio: ['pipe', 'ignore', 'inherit'],
  });
  restored = await openDatabase(other);
});
afterAll(async () => {
  await restored.close();
  pgScript(['stop'], second);
  await server.stop();
});

test('in another cluster, whose transactions have the same numbers again, everything that is written shows', async () => {
  const em = () => restored.em.fork();
  const weightsSeen = async () => {
    const study = await rows<{ id: number }>(em(), 'select max(id) as id from study');
    return [...((await readPeople(em(), study[0]!.id)).weights ?? [])];
  };
  const seen = new Set<string>();
  for (let edit = 1; edit <= 6; edit++) {
    await rows(em(), 'update respondent set weight = :edit', { edit });
    seen.add((await readDataVersion(em())).people);
    expect(new Set(await weightsSeen())).toEqual(new Set([edit]));
  }
  expect(seen.size).toBe(6);
});

test('what was written is the same when it is added up', async () => {
  const em = () => restored.em.fork();
  const { people, answers } = await readDataVersion(em());
  await compactDataVersions(em());
  expect(await readDataVersion(em())).toMatchObject({ people, answers });
  expect(await rows(em(), 'select what from written')).toHaveLength(2);
});
