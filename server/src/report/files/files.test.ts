import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import { strFromU8, unzipSync } from 'fflate';
import type { Report } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../../test/app.js';
import { importStudy } from '../../../test/study.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let folder: string;
let path: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'report-'));
  server = await startServer();
  client = await server.enter('Rowan');
  const rows = Array.from(
    { length: 24 },
    (_, i) =>
      `p${i},${i % 3 ? 'Tye' : 'Hask'},${1 + (i % 4)},"${i % 2 ? `fares 🛥, steps of quay ${i}` : `=SUM(A1) on the day ${i}`}"`,
  );
  study = await importStudy(client, `id,home,weight,Why?\n${rows.join('\n')}\n`);
  const { answers } = await study.ledger('same=apart');
  const evil = answers.filter(({ text }) => text.startsWith('='));
  const { codeId } = await study.code(evil[0]!.id, { newCode: '=1+1' });
  for (const { id } of evil.slice(1)) await study.code(id, { codeId });
  const steps = answers.filter(({ text }) => text.includes('steps'));
  const at = steps[0]!.text.indexOf('steps');
  const fares = await study.code(steps[0]!.id, { newCode: 'Steps' }, [at, at + 5]);
  for (const { id } of steps.slice(1, 5)) await study.code(id, { codeId: fares.codeId });
  for (const { id } of answers.slice(0, 20)) await study.settle(id);
  path = `${study.base}/questions/${study.question}/report`;
});
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Reads a file with Python's own library alone. @returns what the script prints, as JSON */
function python<Result>(file: string, bytes: Buffer, script: string): Result {
  const name = join(folder, file);
  writeFileSync(name, bytes);
  return JSON.parse(execFileSync('python3', ['-c', script, name], { encoding: 'utf8' })) as Result;
}
const query = async () => {
  const [variable] = await server.sql<{ id: number }>(
    `select id from variable where study_id = :studyId and name = 'home'`,
    { studyId: study.id },
  );
  return `by=${variable!.id}&weighted=true`;
};

/** Each worksheet as rows of [type, value], straight out of the XML of the workbook. */
const readWorkbook = `
import sys, json, zipfile, re
import xml.etree.ElementTree as ET
n = {'m': 'http://schemas.openxmlformats.org/spreadsheetml/2006/main'}
z = zipfile.ZipFile(sys.argv[1])
sheets = [s.get('name') for s in ET.fromstring(z.read('xl/workbook.xml')).find('m:sheets', n)]
out = {}
for i, name in enumerate(sheets, 1):
    rows = []
    for row in ET.fromstring(z.read(f'xl/worksheets/sheet{i}.xml')).iter('{%s}row' % n['m']):
        assert row.find('.//m:f', n) is None, 'a formula'
        rows.append([[c.get('t') or 'n', ''.join(t.text or '' for t in list(c.iter('{%s}t' % n['m'])) + list(c.iter('{%s}v' % n['m'])))] for c in row])
    out[name] = rows
print(json.dumps(out))`;

test('the workbook read by Python has the API’s numbers as numbers, answers as texts, and no formula', async () => {
  const which = await query();
  const { body: report } = await client.get<Report>(`${path}?${which}`);
  const { bytes } = await client.get(`${path}/files/xlsx?${which}`);
  const sheets = python<Record<string, [string, string][][]>>('table.xlsx', bytes, readWorkbook);
  expect(Object.keys(sheets)).toEqual(['Why', 'Answers']);
  const [table, answers] = Object.values(sheets);
  const head = table!.findIndex((row) => row[0]?.[1] === 'Kind');
  const heads = table![head]!.map(([, name]) => name);
  const percent = heads.indexOf('Hask: percent');
  expect(table!.slice(head + 1).map((row) => row[2]![1])).toEqual(
    report.rows.map((row) => row.name),
  );
  report.rows.forEach((row, r) => {
    const [type, value] = table![head + 1 + r]![percent]!;
    expect(type).toBe('n');
    expect(Number(value)).toBeCloseTo(row.cells[1]!.share!, 12);
  });
  // an answer a row; those without a code among them
  expect(answers).toHaveLength(1 + 24);
  const passage = answers!.find((row) => row[6]?.[1] === 'steps');
  expect(passage?.map(([, value]) => value)).toEqual([
    'p1',
    'Why?',
    'fares 🛥, steps of quay 1',
    'yes',
    'Steps',
    '',
    'steps',
    'by hand',
    'Rowan',
  ]);
});

test('CSV, HTML and DOCX say the same, with study, base and weighting', async () => {
  const which = await query();
  const { body: report } = await client.get<Report>(`${path}?${which}`);
  const csv = await client.get(`${path}/files/csv?${which}`);
  const lines = parse(csv.text, { bom: true, relax_column_count: true });
  const at = lines.findIndex((line) => line[0] === 'Kind');
  const share = lines[at]!.indexOf('Hask: %');
  expect(lines.slice(at + 1).map((line) => Number(line[share]))).toEqual(
    report.rows.map((row) => Number((100 * row.cells[1]!.share!).toFixed(2))),
  );
  expect(lines.slice(0, at)).toEqual(
    expect.arrayContaining([
      ['Study', 'Test'],
      ['Percent of', 'people with a settled answer'],
      ['Weighted', 'yes'],
    ]),
  );

  const [
    {
      cells: [first],
    },
  ] = report.rows as [Report['rows'][number]];
  const shown = `${(100 * first!.share!).toFixed(0)}%* (${first!.weighted.toFixed(1)}; n ${first!.people})`;
  const html = (await client.get(`${path}/files/html?${which}`)).text;
  expect(html).toContain(`<th>${report.rows[0]!.name}</th><td>${shown}`);
  expect(html).not.toMatch(/<script|src=|href=/u);
  const finer = (await client.get(`${path}/files/html?${which}&decimals=2`)).text;
  expect(finer).toContain(`<td>${(100 * report.rows[0]!.cells[0]!.share!).toFixed(2)}%* (`);
  const docx = await client.get(`${path}/files/docx?${which}`);
  const text = python<string>(
    'table.docx',
    docx.bytes,
    `import sys, json, zipfile, re
x = zipfile.ZipFile(sys.argv[1]).read('word/document.xml').decode()
print(json.dumps(' '.join(re.findall(r'<w:t[^>]*>([^<]*)', x))))`,
  );
  expect(text).toContain(shown);
  expect(text).toContain('Study:  Test');
});

test('programs get one row a cell and one a test, with nothing before the heads', async () => {
  const which = `${await query()}&test=holm&against=rest`;
  const { body: report } = await client.get<Report>(`${path}?${which}&tests=true`);
  const { bytes } = await client.get(`${path}/files/zip?${which}`);
  const files = unzipSync(bytes);
  const table = parse<Record<string, string>>(strFromU8(files['table.csv']!), { columns: true });
  expect(table).toHaveLength(report.rows.length * report.columns.length);
  const cells = report.rows.flatMap((row) => row.cells);
  table.forEach((line, k) => {
    expect(Number(line['weighted_people'])).toBe(cells[k]!.weighted);
    expect(line['share'] === '' ? null : Number(line['share'])).toBe(cells[k]!.share);
  });
  // as it is called, since no spreadsheet reads this
  expect(table.map((line) => line['name'])).toContain('=1+1');
  const tests = parse<Record<string, string>>(strFromU8(files['tests.csv']!), { columns: true });
  const listed = report.rows.flatMap((row) => row.tests);
  expect(listed.length).toBeGreaterThan(0);
  expect(
    tests
      .filter(({ effect }) => effect === 'difference of shares')
      .map((line) => Number(line['p'])),
  ).toEqual(listed.map(({ p }) => p));
  expect(JSON.parse(strFromU8(files['about.json']!))).toMatchObject({ Study: 'Test' });
});

test('the respondent-level file: 0 and 1 where decided, empty where not, and a dictionary that fits it', async () => {
  const { bytes } = await client.get(`${study.base}/respondents/files/zip`);
  const files = unzipSync(bytes);
  const dictionary = JSON.parse(strFromU8(files['datapackage.json']!)) as {
    title: string;
    resources: {
      path: string;
      schema: { fields: { name: string; type: string; title: string }[] };
    }[];
  };
  const [resource] = dictionary.resources;
  const [head, ...people] = parse(strFromU8(files[resource!.path]!));
  const { fields } = resource!.schema;
  expect(fields.map(({ name }) => name)).toEqual(head);
  expect(fields.map(({ title, type }) => [title, type])).toEqual([
    ['Respondent', 'string'],
    ['Weight', 'number'],
    ['home', 'string'],
    ...Array.from({ length: 4 }, () => ['Why?', 'integer']),
    ['Why?: =1+1', 'integer'],
    ['Why?: Steps', 'integer'],
    ['Why?', 'string'],
  ]);
  expect(head!.every((name) => /^[a-z][a-z0-9_]{0,31}$/u.test(name))).toBe(true);
  expect(people).toHaveLength(24);
  const { body: report } = await client.get<Report>(`${path}?by=none`);
  const row = report.rows.find(({ name }) => name === 'Steps')!;
  const valuesOf = (column: string) => people.map((one) => one[head!.indexOf(column)]);
  const count = (column: string, value: string) =>
    valuesOf(column).filter((one) => one === value).length;
  const steps = (value: string) => count('q1_steps', value);
  expect([steps('1'), steps('1') + steps('0'), steps('')]).toEqual([
    row.cells[0]!.people,
    row.cells[0]!.base.people,
    4,
  ]);
  // the number of mentions is left out where that is not decided
  expect(count('q1_mentions', '')).toBe(4);
  // as it was written: whoever reads this runs no formulas
  expect(valuesOf('q1_text')).toContain('=SUM(A1) on the day 0');
  const typed = fields.find(({ name }) => name === 'q1_steps');
  expect(typed).toMatchObject({
    constraints: { enum: [0, 1] },
    categories: [
      { value: 0, label: 'not mentioned' },
      { value: 1, label: 'mentioned' },
    ],
  });
  const workbook = await client.get(`${study.base}/respondents/files/xlsx`);
  const sheets = python<Record<string, unknown[]>>('people.xlsx', workbook.bytes, readWorkbook);
  expect(sheets['Respondents']).toHaveLength(25);
  expect(readFileSync(join(folder, 'people.xlsx')).length).toBe(workbook.bytes.length);
});

test('files are named by study, content and date; names of columns keep the letters under their accents', async () => {
  const other = await importStudy(
    client,
    'id,Größe,Qu’y a-t-il ?\n1,3,la crèche est fermée ici\n2,4,le café est trop cher\n',
  );
  const { ids } = await other.ledger();
  await other.code(ids[0]!, { newCode: 'Crèche' });
  await other.settle(ids[0]!);
  const { bytes, headers } = await client.get(`${other.base}/respondents/files/zip`);
  expect(headers['content-disposition']).toMatch(
    /^attachment; filename="?test_respondents_\d{4}-\d{2}-\d{2}\.zip"?$/u,
  );
  const files = unzipSync(bytes);
  const [table] = Object.keys(files).filter((name) => name.endsWith('.csv'));
  const [head] = parse(strFromU8(files[table!]!));
  expect(head).toContain('grosse');
  expect(head).toContain('q1_creche');
});
