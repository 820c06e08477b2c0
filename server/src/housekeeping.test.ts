import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { startServer, type TestServer } from '../test/app.js';
import { keepHouse } from './housekeeping.js';

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

test('what nobody needs any more is cleared away at the start: sessions, tries, uploads cut off', async () => {
  await server.enter('Rowan');
  await server.sql(`insert into study (name, purpose) values ('s', '')`);
  await server.sql(`insert into sheet (study_id, uploaded_by, file_name, checksum, uploaded_at)
    values (1, 1, 'cut off', null, now() - interval '2 hours'), (1, 1, 'coming', null, now()),
      (1, 1, 'whole', 'c', now() - interval '2 hours')`);
  await server.sql(`insert into session (id, data, expires_at) values ('old', '{}', now())`);
  await server.sql(`insert into sign_in_try (kind, key, failures, last_at)
    values ('account', 'old', 9, now() - interval '2 hours'), ('account', 'new', 9, now())`);
  const errors: unknown[] = [];
  const end = keepHouse(server.orm, (error) => errors.push(error));
  const names = () =>
    server.sql<{ name: string }>('select file_name as name from sheet order by 1');
  while ((await names()).length > 2) await new Promise((resolve) => setTimeout(resolve, 20));
  end();
  expect((await names()).map(({ name }) => name)).toEqual(['coming', 'whole']);
  expect(await server.sql(`select 1 from session where id = 'old'`)).toEqual([]);
  expect(await server.sql(`select key from sign_in_try where key in ('old', 'new')`)).toEqual([
    { key: 'new' },
  ]);
  expect(errors).toEqual([]);
});
