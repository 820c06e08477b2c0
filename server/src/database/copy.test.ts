import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomBytes } from 'node:crypto';
import type { EntityManager, MikroORM } from '@mikro-orm/postgresql';
import { createDatabase } from '../../test/databases.js';
import { copyBytes, copyRows, openDatabase, row, rows } from './index.js';

let database: Awaited<ReturnType<typeof createDatabase>>;
let orm: MikroORM;
let em: EntityManager;
beforeAll(async () => {
  database = await createDatabase();
  orm = await openDatabase(database.url, { migrate: false });
  em = orm.em.fork();
  await rows(em, 'create table copied (id int, bytes bytea, text text)');
});
afterAll(async () => {
  await orm.close();
  await database.drop();
});

test('bytes come out as they went in, many at a time, and failures leave the connections to others', async () => {
  // every byte there is; nothing; more than PostgreSQL or a socket hands over at once
  const all = [Buffer.from(Array.from({ length: 256 }, (_, byte) => byte)), Buffer.alloc(0)];
  all.push(randomBytes(1024 * 1024 + 7));
  for (const [id, bytes] of all.entries())
    await rows(em, 'insert into copied (id, bytes) values (:id, :bytes)', { id, bytes });
  const read = (id: number) => copyBytes(em, `select bytes from copied where id = ${id}`);
  for (let round = 0; round < 20; round++) {
    await expect(copyBytes(em, 'select bytes from nowhere')).rejects.toThrow(/nowhere/);
    const copied = await Promise.all(all.map((_, id) => read(id)));
    copied.forEach((bytes, id) => expect(all[id]!.equals(bytes!)).toBe(true));
  }
  expect(await read(all.length)).toBeNull();
});

test('rows that are copied in hold what they were given, and go with the transaction that fails', async () => {
  const text = 'a\tb\\n\nc\r\\N “ü” 🦭';
  const copy = (fail: boolean) =>
    em.transactional(async (tx) => {
      await copyRows(
        tx,
        'copied',
        ['id', 'text'],
        [
          [10, text],
          [11, null],
        ],
      );
      if (fail) throw new Error('later');
    });
  await expect(copy(true)).rejects.toThrow('later');
  const count = () => row(em, 'select count(*)::int as n from copied where id >= 10');
  expect(await count()).toEqual({ n: 0 });
  await copy(false);
  expect(await rows(em, 'select id, text from copied where id >= 10 order by id')).toEqual([
    { id: 10, text },
    { id: 11, text: null },
  ]);
});
