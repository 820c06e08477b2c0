import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import Excel from 'exceljs';
import type { Sheet, SheetCheck, StudyDetail } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';
import { readSheet } from './readSheet.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

const demo = (name: string) => readFile(new URL(`../../../demo/${name}`, import.meta.url));
const newStudy = async () =>
  (await client.send<{ id: number }>('POST', '/studies', { body: { name: 'S', purpose: '' } })).body
    .id;
const counts = async () =>
  (
    await server.sql<Record<string, number>>(
      `select (select count(*) from respondent)::int as respondents,
         (select count(*) from response)::int as responses, (select count(*) from question)::int as questions,
         (select count(*) from variable)::int as variables, (select count(*) from import)::int as imports`,
    )
  )[0];

describe('reading files', () => {
  const table = (content: string | Uint8Array) => readSheet('a.csv', Buffer.from(content));

  test('CSV and XLSX of the same table read the same', async () => {
    const csv = await readSheet('brindle-sound.csv', await demo('brindle-sound.csv'));
    const xlsx = await readSheet('brindle-sound.xlsx', await demo('brindle-sound.xlsx'));
    expect(csv.rows).toHaveLength(450);
    expect(xlsx).toEqual(csv);
  });

  test('finds the separator and the encoding, and keeps quoted line breaks', async () => {
    expect((await table('id;a\n1;"x;\ny"\n')).rows).toEqual([['1', 'x;\ny']]);
    expect((await table('id\ta\n1\tx, y\n')).rows).toEqual([['1', 'x, y']]);
    const windows1252 = Buffer.from('id,a\n1,caf\xe9 \x80\n', 'latin1');
    expect((await table(windows1252)).rows).toEqual([['1', 'café €']]);
    const utf16 = Buffer.from('\uFEFFid,a\n1,café\n', 'utf16le');
    expect((await table(utf16)).rows).toEqual([['1', 'café']]);
  });

  test('names blank and equal columns, and says which rows do not fit the head', async () => {
    const { columns, rows, unevenRows } = await table('id,a,,a\n1,x\n2,x,y,z,extra\n\n3,1,2,3\n');
    expect(columns).toEqual(['id', 'a', 'Column 3', 'a (2)']);
    expect(rows).toEqual([
      ['1', 'x', '', ''],
      ['2', 'x', 'y', 'z'],
      ['3', '1', '2', '3'],
    ]);
    expect(unevenRows).toEqual([2, 3]);
  });

  test('reads what RFC 4180 gives as examples (section 2, rules 1 to 7)', async () => {
    const head = 'field_name,field_name 2,field_name 3\r\n';
    const plain = [
      ['aaa', 'bbb', 'ccc'],
      ['zzz', 'yyy', 'xxx'],
    ];
    expect((await table(`${head}aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n`)).rows).toEqual(plain);
    expect((await table(`${head}aaa,bbb,ccc\r\nzzz,yyy,xxx`)).rows).toEqual(plain);
    expect((await table(`${head}"aaa","bbb","ccc"\r\nzzz,yyy,xxx`)).rows).toEqual(plain);
    expect((await table(`${head}"aaa","b\r\nbb","ccc"\r\nzzz,yyy,xxx`)).rows[0]).toEqual([
      ...['aaa', 'b\r\nbb', 'ccc'],
    ]);
    expect((await table(`${head}"aaa","b""bb","ccc"`)).rows[0]).toEqual(['aaa', 'b"bb', 'ccc']);
  });

  test('takes of a workbook what a person sees: text runs, results, dates; the first sheet with rows', async () => {
    const workbook = new Excel.Workbook();
    workbook.addWorksheet('Cover');
    const sheet = workbook.addWorksheet('Answers');
    sheet.addRow(['id', 'When', 'Sum', 'Why?', 'Link', 'Done']);
    sheet.addRow([
      1,
      new Date(Date.UTC(2026, 3, 9)),
      { formula: '1+2', result: 3 },
      { richText: [{ text: 'more ' }, { text: 'boats', font: { bold: true } }] },
      { text: 'site', hyperlink: 'http://127.0.0.1/' },
      true,
    ]);
    sheet.addRow(['002', null, 2.5, '  =1+1', undefined, false]);
    const read = await readSheet('a.xlsx', new Uint8Array(await workbook.xlsx.writeBuffer()));
    expect(read.columns).toEqual(['id', 'When', 'Sum', 'Why?', 'Link', 'Done']);
    expect(read.rows).toEqual([
      ['1', '2026-04-09', '3', 'more boats', 'site', 'true'],
      ['002', '', '2.5', '  =1+1', '', 'false'],
    ]);
  });

  test.each([
    ['an empty file', Buffer.alloc(0), 'is empty'],
    ['a password or .xls', Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 1, 2]), 'protected by a password'],
    [
      'an image named .xlsx',
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2]),
      'neither a text file nor',
    ],
    ['a broken zip', Buffer.from([0x50, 0x4b, 3, 4, 9, 9, 9]), 'may be damaged'],
    ['blank lines', Buffer.from('\n\n'), 'holds no table'],
  ])('tells in one sentence what is wrong with %s', async (_, content, sentence) => {
    const reply = await client.upload<{ code: string; sentence: string }>(
      await newStudy(),
      'x.xlsx',
      content,
    );
    expect(reply.status).toBe(422);
    expect(reply.body.code).toBe('unreadable_sheet');
    expect(reply.body.sentence).toContain(sentence);
  });
});

describe('bringing a sheet in', () => {
  test('shows what will come in, then writes exactly that', async () => {
    const study = await newStudy();
    const content = await demo('brindle-sound.xlsx');
    const { body: sheet } = await client.upload<Sheet>(study, 'brindle-sound.xlsx', content);
    const roles = sheet.columns.map((column) => column.role);
    expect(roles).toEqual([
      ...['id', 'category', 'category', 'category', 'number', 'yes_no', 'yes_no', 'number', 'date'],
      ...['category', 'weight', 'question', 'question', 'question'],
    ]);
    const before = await counts();
    const { body: check } = await client.send<SheetCheck>(
      'POST',
      `/studies/${study}/sheets/${sheet.id}/check`,
      {
        body: { roles },
      },
    );
    expect(check).toMatchObject({ respondents: 450, findings: [] });
    expect(await counts()).toEqual(before);

    const { body: job } = await client.send<{ id: number }>(
      'POST',
      `/studies/${study}/sheets/${sheet.id}/import`,
      {
        body: { roles },
      },
    );
    expect((await client.jobEnd(study, job.id)).state).toBe('done');
    const { body: detail } = await client.get<StudyDetail>(`/studies/${study}`);
    expect(detail).toMatchObject({ respondents: 450, weighted: true });
    expect(
      detail.questions.map(({ wording, answered, asked }) => ({ wording, answered, asked })),
    ).toEqual(check.questions.map(({ wording, answered }) => ({ wording, answered, asked: 450 })));
    expect(detail.imports).toEqual([
      expect.objectContaining({ fileName: 'brindle-sound.xlsx', respondents: 450, by: 'Rowan' }),
    ]);
  });

  test('hostile cells are kept as what they are: text', async () => {
    const cells = [
      '<img src=x onerror=alert(1)>',
      '=HYPERLINK("http://x")',
      `'; drop table study; --`,
      '\\N',
      'a\tb',
      '{{7*7}}',
    ];
    const csv = `id,Why?\n${cells.map((cell, i) => `${i},"${cell.replaceAll('"', '""')}"`).join('\n')}`;
    const study = await importStudy(client, csv);
    const { answers } = await study.ledger();
    expect(answers.map((answer) => answer.text)).toEqual(cells);
  });

  test('what stops an import writes nothing at all', async () => {
    const study = await newStudy();
    const { body: sheet } = await client.upload<Sheet>(
      study,
      'a.csv',
      Buffer.from('id,Why?\n1,x\n1,y\n'),
    );
    const before = await counts();
    const { body: job } = await client.send<{ id: number }>(
      'POST',
      `/studies/${study}/sheets/${sheet.id}/import`,
      {
        body: { roles: ['id', 'question'] },
      },
    );
    const ended = await client.jobEnd(study, job.id);
    expect(ended).toMatchObject({ state: 'failed', problem: { code: 'sheet_stops' } });
    expect(ended.problem!.sentence).toContain('same respondent id');
    expect(await counts()).toEqual(before);
  });

  test('respondents already known are refused, and nothing is half-written', async () => {
    const study = await importStudy(client, 'id,Why?\n1,more boats\n2,fewer steps\n');
    const before = await counts();
    const { body: sheet } = await client.upload<Sheet>(
      study.id,
      'b.csv',
      Buffer.from('id,home,Why?\n3,Tye,late\n2,Hask,wet\n'),
    );
    const { body: job } = await client.send<{ id: number }>(
      'POST',
      `${study.base}/sheets/${sheet.id}/import`,
      {
        body: { roles: ['id', 'category', 'question'] },
      },
    );
    const ended = await client.jobEnd(study.id, job.id);
    expect(ended.problem).toMatchObject({ code: 'ids_taken' });
    expect(ended.problem!.sentence).toContain('(2)');
    expect(await counts()).toEqual(before);
    expect(server.errors).toEqual([]);
  });
});
