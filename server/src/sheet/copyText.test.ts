import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { MikroORM } from '@mikro-orm/postgresql';
import fc from 'fast-check';
import { createDatabase } from '../../test/databases.js';
import { copyText, openDatabase, rows } from '../database/index.js';
import { CopyText, copyWriter } from './copyText.js';

let database: Awaited<ReturnType<typeof createDatabase>>;
let orm: MikroORM;
beforeAll(async () => {
  database = await createDatabase();
  orm = await openDatabase(database.url, { migrate: false });
});
afterAll(async () => {
  await orm.close();
  await database.drop();
});

test('whatever a cell holds comes out of PostgreSQL as it went in', async () => {
  const cell = fc.oneof(
    fc.constantFrom(
      null,
      '',
      '\\N',
      '\\.',
      '\\',
      '\t',
      '\n',
      '\r\n',
      'a\\tb',
      '🦭',
      "'",
      '"',
      '{}',
    ),
    // what no text in PostgreSQL can hold is removed before
    fc.string({ unit: 'grapheme' }).filter((text) => !text.includes('\0')),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(cell, cell, fc.boolean())), async (table) => {
      const lines = new CopyText('cells');
      for (const [i, line] of table.entries()) lines.add([i, ...line]);
      await orm.em.fork().transactional(async (em) => {
        await rows(
          em,
          'create temporary table cells (i int, a text, b text, c boolean) on commit drop',
        );
        const writer = copyWriter({
          part: () => Promise.reject(new Error('nothing is read')),
          write: (to, bytes) => copyText(em, to, ['i', 'a', 'b', 'c'], [bytes]),
          report: () => {},
        });
        await writer.write([lines]);
        await writer.end();
        const read = await rows<{ a: string | null; b: string | null; c: boolean }>(
          em,
          'select a, b, c from cells order by i',
        );
        expect(read.map(({ a, b, c }) => [a, b, c])).toEqual(table);
      });
    }),
    { numRuns: 60 },
  );
});

test('what cannot be written is told when the next lot or the end is waited for', async () => {
  const lines = new CopyText('cells');
  const writer = copyWriter({
    part: () => Promise.reject(new Error('nothing is read')),
    write: () => Promise.reject(new Error('the disk is full')),
    report: () => {},
  });
  lines.add([1]);
  await writer.write([lines]);
  await expect(writer.end()).rejects.toThrow('the disk is full');
});
