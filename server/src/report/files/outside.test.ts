import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Report } from '@yellow-thread/contract';
import { unzipSync } from 'fflate';
import { startServer, type Client, type TestServer } from '../../../test/app.js';
import { importStudy } from '../../../test/study.js';

// What other programs make of the files: R, PSPP, LibreOffice and openpyxl, as Debian has them.

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let folder: string;
let report: Report;
let across: string;
const places = Array.from({ length: 21 }, (_, i) => `Harbour of ${'ABCDEFGHIJKLMNOPQRSTU'[i]}by`);
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'outside-'));
  server = await startServer();
  client = await server.enter('Rowan');
  const lines = Array.from(
    { length: 84 },
    (_, i) =>
      `p${i},${places[i % 21]},2026-0${1 + (i % 9)}-1${i % 10},"${i % 3 ? `the fares, said ${i}` : `no wait at the quay ${i}`}"`,
  );
  study = await importStudy(client, `id,by,Tag,Wozu "das"?\n${lines.join('\n')}\n`);
  const { answers } = await study.ledger('same=apart');
  const fares = answers.filter(({ text }) => text.includes('fares'));
  const { codeId } = await study.code(fares[0]!.id, { newCode: 'Größere „Preise“' });
  for (const { id } of fares.slice(1)) await study.code(id, { codeId });
  for (const { id } of answers) await study.settle(id);
  const [variable] = await server.sql<{ id: number }>(
    `select id from variable where study_id = :studyId and name = 'by'`,
    { studyId: study.id },
  );
  across = `${study.base}/questions/${study.question}/report`;
  report = (await client.get<Report>(`${across}?by=${variable!.id}`)).body;
  const files = {
    'table.xlsx': `${across}/files/xlsx?by=${variable!.id}`,
    'table.docx': `${across}/files/docx?by=${variable!.id}`,
    'people.xlsx': `${study.base}/respondents/files/xlsx`,
  };
  for (const [name, address] of Object.entries(files))
    writeFileSync(join(folder, name), (await client.get(address)).bytes);
  const { bytes } = await client.get(`${study.base}/respondents/files/zip`);
  for (const [name, content] of Object.entries(unzipSync(bytes)))
    writeFileSync(join(folder, name), content);
});
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

const run = (command: string, args: readonly string[]) =>
  execFileSync(command, args, { cwd: folder, encoding: 'utf8', stdio: 'pipe' });
const office = (format: string, file: string) =>
  run('soffice', [
    `-env:UserInstallation=${pathToFileURL(join(folder, 'profile')).href}`,
    '--headless',
    '--convert-to',
    format,
    file,
  ]);
const mentioning = () => report.rows[0]!.cells[0]!;

test('R reads the respondents by the syntax that comes with them', () => {
  const script = `source("read_respondents.R", encoding = "UTF-8")
cat(nrow(respondents), sum(respondents$q1_grossere_preise, na.rm = TRUE), sum(!is.na(respondents$q1_grossere_preise)),
  nlevels(respondents$v_by), class(respondents$tag), attr(respondents$q1_text, "label"), names(attr(respondents$q1_grossere_preise, "labels")), sep = "|")`;
  const { people, base } = mentioning();
  expect(run('Rscript', ['-e', script])).toBe(
    `84|${people}|${base.people}|21|Date|Wozu "das"?|not mentioned|mentioned`,
  );
});

test('PSPP reads them too, with labels', () => {
  writeFileSync(
    join(folder, 'all.sps'),
    `${readFileSync(join(folder, 'read_respondents.sps'), 'utf8')}
DESCRIPTIVES q1_grossere_preise /STATISTICS=SUM MINIMUM.
FREQUENCIES q1_grossere_preise.
`,
  );
  run('pspp', ['-O', 'format=csv', '-o', 'out.csv', 'all.sps']);
  const out = readFileSync(join(folder, 'out.csv'), 'utf8');
  const { people, base } = mentioning();
  expect(out).not.toMatch(/error|warning/iu);
  // the labels of variables, and the lowest value by its label
  expect(out).toContain(`Größere „Preise“`);
  expect(out).toMatch(new RegExp(`,${base.people},not mentioned,${people}[.]00`, 'u'));
});

test('openpyxl finds dates as dates and numbers as numbers', () => {
  const script = `import openpyxl, json
people = openpyxl.load_workbook('people.xlsx')
rows = list(people['Respondents'].iter_rows(values_only=True))
table = openpyxl.load_workbook('table.xlsx')
import docx
properties = docx.Document('table.docx').core_properties
print(json.dumps([str(type(rows[1][rows[0].index('tag')])), len(rows), table.sheetnames,
  properties.title, properties.author, properties.created is not None, table.properties.creator]))`;
  expect(JSON.parse(run('/usr/bin/python3', ['-c', script]))).toEqual([
    "<class 'datetime.datetime'>",
    85,
    ['Wozu "das"', 'Answers'],
    // the document says what it is, whose, and of when
    'Wozu "das"? – Test',
    'Rowan',
    true,
    'Yellow Thread',
  ]);
});

test('LibreOffice opens the workbook and the wide document, with no column lost', () => {
  office('csv', 'table.xlsx');
  const csv = readFileSync(join(folder, 'table.csv'), 'utf8');
  for (const place of places) expect(csv).toContain(`${place}: people`);
  office('txt:Text', 'table.docx');
  const text = readFileSync(join(folder, 'table.txt'), 'utf8');
  for (const place of places) expect(text).toContain(place);
  office('pdf', 'table.docx');
  const pdf = readFileSync(join(folder, 'table.pdf'), 'latin1');
  expect(pdf).toMatch(/\/MediaBox\s*\[\s*0 0 84[12](?:\.\d+)? 59[56]/u);
});
