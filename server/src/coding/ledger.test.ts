import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Ledger } from '@yellow-thread/contract';
import { rows } from '../database/index.js';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

test('finds answers that hold the words as written, wildcards of the database included', async () => {
  const study = await importStudy(client, 'id,Why?\n1,The fares are mad.\n2,more boats\n');
  expect((await study.ledger('words=FARES')).total).toBe(1);
  expect((await study.ledger('words=%25')).total).toBe(0);
});

test('characters are found whatever their case, in ASCII and beyond it', async () => {
  const texts = ['ÅLESUND boat', 'Über den BOOT', 'a boat', 'straße', 'Ωmega'];
  const lines = texts.map((text, i) => `${i},${text}`).join('\n');
  const other = await importStudy(client, `id,Why?\n${lines}\n`);
  const found = async (words: string, match: string) =>
    (await other.ledger(`words=${encodeURIComponent(words)}&match=${match}`)).answers
      .map(({ text }) => texts.indexOf(text))
      .sort();
  expect(await found('BOAT', 'plain')).toEqual([0, 2]);
  expect(await found('åles', 'plain')).toEqual([0]);
  expect(await found('boo', 'plain')).toEqual([1]);
  expect(await found('ÜBER', 'word')).toEqual([1]);
  expect(await found('ω*', 'wildcard')).toEqual([4]);
  expect(await found('boats', 'stem')).toEqual([0, 2]);
  expect(await found('stra', 'plain')).toEqual([3]);
});

test('answers are read again when their words change, and lots at a time when there is much of them', async () => {
  const study = await importStudy(client, 'id,Why?\n1,[INT: boats?] dear\n2,more boats\n3,boat\n');
  const ledger = `${study.base}/questions/${study.question}/ledger`;
  const found = async (words: string, match = 'stem') =>
    (await client.get<Ledger>(`${ledger}?words=${words}&match=${match}`)).body.total;
  expect(await found('boat')).toBe(3);
  const em = server.orm.em.fork();
  // what the interviewer said is not what was answered
  const asides = JSON.stringify({ brackets: ['[]'], leading: [] });
  await rows(em, 'update study set asides = :asides where id = :studyId', {
    asides,
    studyId: study.id,
  });
  expect([await found('boat'), await found('boats', 'plain')]).toEqual([2, 1]);
  const long = `repeat('-', 34000000) || ' BOATS'`;
  await rows(
    em,
    `update response set text = ${long} where question_id = :questionId and text = 'boat'`,
    { questionId: study.question },
  );
  expect([await found('boat'), await found('boats', 'plain')]).toEqual([2, 2]);
});

test('an answer stands for all of the same words, listed or not, since all of them are coded as one', async () => {
  const study = await importStudy(client, 'id,Why?\n1,Too dear\n2,too dear.\n3,late\n4,TOO DEAR\n');
  const [, second] = (await study.ledger('same=apart')).ids;
  await client.send('PUT', `${study.base}/responses/${second}/settlement`, {
    body: { settled: true },
  });
  const ledger = `${study.base}/questions/${study.question}/ledger`;
  const { body } = await client.get<Ledger>(`${ledger}?show=open`);
  expect([body.counts, body.total]).toEqual([[3, 1], 3]);
  const all = await client.get<Ledger>(`${ledger}?same=apart&like=${body.ids[0]}`);
  expect(all.body.total).toBe(3);
});

test('accents are folded in answers and in what is looked for', async () => {
  const study = await importStudy(client, 'id,Why?\n1,La CRÈCHE\n2,the creche\n3,cre che\n');
  for (const words of ['creche', 'Crèche', 'CRE\u0300CHE'])
    expect((await study.ledger(`words=${encodeURIComponent(words)}&match=word`)).total).toBe(2);
});
