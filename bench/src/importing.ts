import { createReadStream, createWriteStream } from 'node:fs';
import { once } from 'node:events';
import { randomSource } from '@yellow-thread/core/statistics';
import Excel from 'exceljs';
import { demoQuestions, rounded } from './material.js';
import { best, bringIn, enter, FOLDER, timedAsync, withProduct } from './product.js';

const ROWS = 100_000;

/**
 * Bringing 100,000 respondents × 12 columns (3 open) into the product, beside what PostgreSQL's own COPY takes for
 * the same file into one plain text table, and a workbook beside merely reading it with the library.
 */
export const importing = () =>
  withProduct(async (product) => {
    const csv = `${FOLDER}/large.csv`;
    const xlsx = `${FOLDER}/large.xlsx`;
    await writeFiles(csv, xlsx);
    const { call } = await enter();
    const copy = await best(3, () => timedAsync(() => copyPlain(csv)));
    const fromCsv = await bringIn(call, csv);
    const reading = await timedAsync(() => readWorkbook(xlsx));
    const fromXlsx = await bringIn(call, xlsx);
    const peak = product.peak();
    const row = (what: string, ms: number, compared: string, its: number) => ({
      what,
      ms: Math.round(ms),
      'compared with': compared,
      'its ms': Math.round(its),
      ratio: rounded(ms / its),
    });
    return [
      row('CSV: bring in, to the commit', fromCsv.import, 'COPY into a plain table', copy),
      row('CSV: read through and guess roles', fromCsv.read, 'COPY into a plain table', copy),
      row('CSV: check with these roles', fromCsv.check, 'COPY into a plain table', copy),
      row('XLSX: read through and guess roles', fromXlsx.read, 'reading it with exceljs', reading),
      row(
        'XLSX: all of it, to the commit',
        fromXlsx.read + fromXlsx.check + fromXlsx.import,
        'reading it with exceljs',
        reading,
      ),
      { what: 'peak memory of the server, MB', ms: peak },
    ];

    function copyPlain(file: string): Promise<unknown> {
      const columns = Array.from({ length: 12 }, (_, c) => `c${c} text`).join(', ');
      product.sql(`create table if not exists plain (${columns}); truncate plain`);
      product.sql(`\\copy plain from '${file}' csv header`);
      return Promise.resolve();
    }
  });

/** 100,000 respondents × 12 columns, 3 of them open, as CSV and as a workbook. */
export async function writeFiles(csv: string, xlsx: string | null) {
  const next = randomSource(1);
  const draw = (below: number) => Math.floor((next() / 2 ** 32) * below);
  const texts = demoQuestions().map((answers) => answers.map(({ text }) => text));
  const text = (q: number) => {
    if (draw(5) === 0) return ['', 'n/a', '-'][draw(3)]!;
    const pool = texts[q]!;
    return `${pool[draw(pool.length)]!} ${pool[draw(pool.length)]!}`;
  };
  const columns = ['id', 'home', 'age', 'came', 'car', 'fare', 'traveller', 'trips', 'weight'];
  const head = [...columns, 'What would you change?', 'What do you value?', 'Why not?'];
  const rows = function* () {
    yield head;
    for (let i = 0; i < ROWS; i++)
      yield [
        `R${String(i).padStart(6, '0')}`,
        ['Tye', 'Hask', 'Carrow', 'Little Tye', 'Elsewhere'][draw(5)]!,
        String(18 + draw(70)),
        `2026-0${1 + draw(9)}-${10 + draw(18)}`,
        draw(2) ? 'yes' : 'no',
        ['single', 'return', 'pass'][draw(3)]!,
        ['resident', 'commuter', 'visitor'][draw(3)]!,
        String(draw(40)),
        (0.5 + draw(100) / 100).toFixed(2),
        ...[0, 1, 2].map(text),
      ];
  };
  const quoted = (cell: string) =>
    /[",\n]/u.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell;
  const out = createWriteStream(csv);
  const workbook = xlsx ? new Excel.stream.xlsx.WorkbookWriter({ filename: xlsx }) : null;
  const sheet = workbook?.addWorksheet('Answers');
  for (const row of rows()) {
    if (!out.write(`${row.map(quoted).join(',')}\n`)) await once(out, 'drain');
    sheet?.addRow(row).commit();
  }
  out.end();
  await Promise.all([once(out, 'finish'), workbook?.commit()]);
}

async function readWorkbook(file: string) {
  const reader = new Excel.stream.xlsx.WorkbookReader(createReadStream(file), {
    sharedStrings: 'cache',
    styles: 'cache',
    hyperlinks: 'ignore',
    worksheets: 'emit',
    entries: 'ignore',
  });
  for await (const sheet of reader) for await (const row of sheet) void row.values;
}
