import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { unzipSync, strFromU8 } from 'fflate';
import type { WriteUp, WriteUpContent, WriteUpSummary } from '@yellow-thread/contract';
import { emptyBin } from '../database/index.js';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';
import { dropLoosePictures } from './pictures.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let home: number;
let steps: string;
let open: number;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
  const rows = Array.from(
    { length: 20 },
    (_, i) =>
      `p${i},${i % 2 ? 'Tye' : 'Hask'},"${i % 3 ? `steps at quay ${i}${i === 1 ? ', ask Mrs Finch, finch@x.example' : ''}` : `the fares on day ${i}`}"`,
  );
  study = await importStudy(client, `id,home,Why?\n${rows.join('\n')}\n`);
  const { answers } = await study.ledger('same=apart');
  const found = answers.filter(({ text }) => text.startsWith('steps'));
  const first = await study.code(found[0]!.id, { newCode: 'Steps' });
  steps = first.codeId;
  for (const { id } of found.slice(1)) await study.code(id, { codeId: steps });
  await client.send('PATCH', `${study.base}/mentions/${first.id}`, { body: { typical: true } });
  for (const { id } of answers.slice(0, 19)) await study.settle(id);
  open = answers[19]!.id;
  [{ id: home }] = (await server.sql<{ id: number }>(
    `select id from variable where study_id = :studyId and name = 'home'`,
    { studyId: study.id },
  )) as [{ id: number }];
});
afterAll(() => server.stop());

const figure = (shown: string) => ({
  type: 'figure',
  attrs: { table: 't', row: steps, column: 'total', what: 'share', shown },
});
const contentOf = (table: string): WriteUpContent => ({
  tables: [{ id: table, questionId: study.question, query: `by=${home}&counts=settled` }],
  pictures: [],
  background: [home],
  masked: true,
  drafted: [],
  names: ['quay'],
  body: {
    type: 'doc',
    content: [
      {
        type: 'heading',
        attrs: { level: 1 },
        content: [{ type: 'text', text: 'What <they> said' }],
      },
      {
        type: 'paragraph',
        content: [{ type: 'text', text: 'Steps: ', marks: [{ type: 'bold' }] }, figure('68%')],
      },
      { type: 'tableSlot', attrs: { table } },
      {
        type: 'blockquote',
        content: [{ type: 'paragraph', content: [{ type: 'text', text: '“up”' }] }],
      },
    ],
  },
});
const path = (id: string) => `${study.base}/write-ups/${id}`;
const save = (id: string, version: number, content: WriteUpContent, name = 'Findings') =>
  client.send<{ version: number; code: string }>('PUT', path(id), {
    body: { name, version, content },
  });
const read = async (id: string) => (await client.get<WriteUp>(path(id))).body;

test('a write-up is saved on the version it was written on, and reopens as it was with figures as they are now', async () => {
  const id = randomUUID();
  const content = contentOf(randomUUID());
  expect(await save(id, 0, content)).toMatchObject({ status: 200, body: { version: 1 } });
  // a second tab that has not seen this
  expect(await save(id, 0, { ...content, body: null })).toMatchObject({
    status: 409,
    body: { code: 'changed_meanwhile' },
  });
  const { counted, quotes, ...stored } = await read(id);
  expect(stored).toMatchObject({ name: 'Findings', version: 1, content, lost: [], coders: 1 });
  expect(counted[0]!.report.rows[0]).toMatchObject({
    name: 'Steps',
    cells: [{ base: { people: 19 } }, {}, {}],
  });
  expect(counted[0]!.facts).toContainEqual(['Columns', 'home']);
  expect(quotes).toEqual([
    {
      codeId: steps,
      questionId: study.question,
      text: 'steps at [name] 1, ask Mrs [name], [e-mail]',
      who: 'Tye',
    },
  ]);
  const wrong = { ...content, tables: [{ ...content.tables[0]!, query: 'by=nonsense' }] };
  expect(await save(id, 1, wrong)).toMatchObject({ status: 400, body: { code: 'wrong_table' } });
});

test('a frozen copy keeps its figures and answers while the study goes on, and cannot be written on', async () => {
  const [id, copy, copyOfCopy] = [randomUUID(), randomUUID(), randomUUID()];
  const content = contentOf(randomUUID());
  await save(id, 0, content, 'To freeze');
  expect((await client.send('POST', `${path(id)}/freeze`, { body: { id: copy } })).status).toBe(
    200,
  );
  const before = await read(copy);
  await study.settle(open);
  const base = (one: WriteUp) => one.counted[0]!.report.rows[0]!.cells[0]!.base.people;
  expect([base(await read(copy)), base(await read(id))]).toEqual([19, 20]);
  expect(await read(copy)).toEqual(before);
  await client.send('POST', `${path(copy)}/freeze`, { body: { id: copyOfCopy } });
  const notSettled = async (one: string) => {
    const files = unzipSync((await client.get(`${path(one)}/files/xlsx`)).bytes);
    return strFromU8(files['xl/worksheets/sheet2.xml']!).split('>no<').length - 1;
  };
  expect([await notSettled(id), await notSettled(copy)]).toEqual([0, 1]);
  expect(await notSettled(copyOfCopy)).toBe(1);
  expect(await save(copy, 1, content)).toMatchObject({
    status: 409,
    body: { code: 'write_up_frozen' },
  });
  const { body } = await client.get<{ writeUps: WriteUpSummary[] }>(`${study.base}/write-ups`);
  const found = body.writeUps.filter(({ name }) => name === 'To freeze');
  expect(found.map(({ frozenAt }) => frozenAt === null).sort()).toEqual([false, false, true]);
  await study.settle(open, false);
});

test('it leaves as HTML and DOCX with its text, table, quote and what the tables are about', async () => {
  const id = randomUUID();
  await save(id, 0, contentOf(randomUUID()));
  const html = (await client.get(`${path(id)}/files/html`)).text;
  for (const part of [
    '<h1>What &lt;they&gt; said</h1>',
    '<p><strong>Steps: </strong>68%</p>',
    '<tr><th>Steps</th><td>63%* (12)</td>',
    '<blockquote>“up”</blockquote>',
    '<strong>Percent of: </strong>people with a settled answer',
  ])
    expect(html).toContain(part);
  const docx = await client.get(`${path(id)}/files/docx`);
  const xml = strFromU8(unzipSync(docx.bytes)['word/document.xml']!);
  for (const part of ['What &lt;they&gt; said', '63%* (12)', '“up”']) expect(xml).toContain(part);
});

test('a chart is kept once, stands in the text and in every file, and in a frozen copy when the write-up is gone', async () => {
  const [id, copy, placed, left] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  const pixel =
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
  const at = (picture: string) => `${study.base}/pictures/${picture}`;
  const keep = (picture: string, png: string) => client.send('PUT', at(picture), { body: { png } });
  for (const picture of [placed, left, left]) expect((await keep(picture, pixel)).status).toBe(200);
  expect(await keep(randomUUID(), Buffer.from('<svg>').toString('base64'))).toMatchObject({
    status: 400,
    body: { code: 'not_a_picture' },
  });
  expect((await client.get(at(placed))).bytes).toEqual(
    new Uint8Array(Buffer.from(pixel, 'base64')),
  );
  const elsewhere = await importStudy(client, 'id,Why?\na,it is as it is here\n');
  expect((await client.get(`${elsewhere.base}/pictures/${placed}`)).status).toBe(404);

  const content = contentOf(randomUUID());
  content.pictures = [placed, left].map((picture, n) => ({
    id: picture,
    alt: `Chart "${n}"`,
    width: 900,
    height: 450,
    figures: n === 0 ? { columns: ['Theme or code', 'Total'], rows: [['Steps', 0.25]] } : null,
  }));
  content.body!.content!.splice(1, 0, { type: 'pictureSlot', attrs: { picture: placed } });
  await save(id, 0, content, 'With charts');
  await client.send('POST', `${path(id)}/freeze`, { body: { id: copy } });
  await server.sql(`update picture set kept_at = now() - interval '2 days'`);
  await client.send('DELETE', path(id));
  const html = (await client.get(`${path(copy)}/files/html`)).text;
  const pictures = [...html.matchAll(/<img src="data:image\/png;base64,([^"]+)" alt="([^"]+)"/gu)];
  expect(pictures.map(([, png, alt]) => [png, alt])).toEqual([
    [pixel, 'Chart &quot;0&quot;'],
    [pixel, 'Chart &quot;1&quot;'],
  ]);
  // where a picture cannot stand, its figures do; a workbook has a worksheet in any case
  const csv = (await client.get(`${path(copy)}/files/csv`)).text;
  expect(csv).toContain('Theme or code,Total (%)\r\nSteps,25\r\n');
  const bare = randomUUID();
  await save(bare, 0, { ...contentOf(randomUUID()), tables: [], body: null }, 'Nothing yet');
  const sheets = unzipSync((await client.get(`${path(bare)}/files/xlsx`)).bytes);
  expect(Object.keys(sheets)).toContain('xl/worksheets/sheet1.xml');
  const first = html.indexOf('<img');
  expect(first).toBeLessThan(html.indexOf('Steps: '));
  const files = unzipSync((await client.get(`${path(copy)}/files/docx`)).bytes);
  expect(Object.keys(files).filter((name) => name.startsWith('word/media/'))).not.toEqual([]);
  await client.send('DELETE', path(bare));
  await server.sql('delete from write_up where id = :bare', { bare });
  const listed = async () =>
    (await client.get<{ binned: { id: string; by: string }[] }>(`${study.base}/write-ups`)).body;
  await client.send('DELETE', path(copy));
  expect((await client.get(path(copy))).status).toBe(404);
  expect((await listed()).binned).toMatchObject([
    { id: copy, by: 'Rowan' },
    { id, by: 'Rowan' },
  ]);
  // it comes back as it was frozen, with its pictures
  expect((await client.send('POST', `${path(copy)}/restore`)).status).toBe(200);
  expect((await client.get(`${path(copy)}/files/html`)).text).toBe(html);
  expect((await client.send('POST', `${path(copy)}/restore`)).status).toBe(404);
  await client.send('DELETE', path(copy));
  await server.sql(`update write_up set binned_at = now() - interval '31 days'
    where binned_at is not null`);
  await emptyBin(server.orm.em.fork());
  await dropLoosePictures(server.orm.em.fork());
  expect((await listed()).binned).toEqual([]);
  expect((await client.get(at(placed))).status).toBe(404);
});

test('a table whose group is gone is said to be lost; the rest stays', async () => {
  const id = randomUUID();
  const content = contentOf(randomUUID());
  content.tables.push({
    id: randomUUID(),
    questionId: study.question,
    query: `group=${randomUUID()}`,
  });
  await save(id, 0, content);
  const { counted, lost } = await read(id);
  expect([counted.length, lost.length]).toEqual([1, 1]);
  expect(lost[0]!.why).toContain('no such group');
  const frozen = await client.send('POST', `${path(id)}/freeze`, { body: { id: randomUUID() } });
  expect(frozen).toMatchObject({ status: 409, body: { code: 'table_lost' } });
});
