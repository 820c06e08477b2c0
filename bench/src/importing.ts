import { execFileSync, spawn } from 'node:child_process';
import {
  createReadStream,
  createWriteStream,
  openAsBlob,
  readFileSync,
  rmSync,
  mkdirSync,
} from 'node:fs';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { randomSource } from '@yellow-thread/core/statistics';
import Excel from 'exceljs';
import { demoQuestions, rounded } from './material.js';

const PROJECT = fileURLToPath(new URL('../..', import.meta.url));
const FOLDER = `${PROJECT}.bench`;
const PORT = process.env['BENCH_PORT'] ?? '4530';
const ROWS = 100_000;

/**
 * Bringing 100,000 respondents × 12 columns (3 open) into the product, beside what PostgreSQL's own COPY takes for
 * the same file into one plain text table, and a workbook beside merely reading it with the library.
 */
export async function importing() {
  mkdirSync(FOLDER, { recursive: true });
  const csv = `${FOLDER}/large.csv`;
  const xlsx = `${FOLDER}/large.xlsx`;
  await writeFiles(csv, xlsx);
  await settleIn();
  const product = await startProduct();
  try {
    const copy = await best(3, () => timedAsync(() => copyPlain(csv)));
    const fromCsv = await bringIn(csv);
    const reading = await timedAsync(() => readWorkbook(xlsx));
    const fromXlsx = await bringIn(xlsx);
    const peak = Number(
      /VmHWM:\s+(\d+)/u.exec(readFileSync(`/proc/${product.pid()}/status`, 'utf8'))![1],
    );
    const row = (what: string, ms: number, compared: string, its: number) => ({
      ...{ what, ms: Math.round(ms), 'compared with': compared },
      ...{ 'its ms': Math.round(its), ratio: rounded(ms / its) },
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
      { what: 'peak memory of the server, MB', ms: Math.round(peak / 1024) },
    ];
  } finally {
    await product.stop();
    rmSync(FOLDER, { recursive: true, force: true });
  }

  function copyPlain(file: string): Promise<unknown> {
    const psql = (sql: string) =>
      execFileSync('psql', [product.database, '-Atqc', sql], { stdio: 'pipe' });
    const columns = Array.from({ length: 12 }, (_, c) => `c${c} text`).join(', ');
    psql(`create table if not exists plain (${columns}); truncate plain`);
    psql(`\\copy plain from '${file}' csv header`);
    return Promise.resolve();
  }
}

async function writeFiles(csv: string, xlsx: string) {
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
  const workbook = new Excel.stream.xlsx.WorkbookWriter({ filename: xlsx });
  const sheet = workbook.addWorksheet('Answers');
  for (const row of rows()) {
    if (!out.write(`${row.map(quoted).join(',')}\n`)) await once(out, 'drain');
    sheet.addRow(row).commit();
  }
  out.end();
  await Promise.all([once(out, 'finish'), workbook.commit()]);
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

/** The first start trains the demo's models: they are no part of an import's time or memory. */
async function settleIn() {
  const first = await startProduct();
  const left = `select count(*) from job where state in ('waiting', 'running')`;
  const jobs = () => execFileSync('psql', [first.database, '-Atqc', left], { encoding: 'utf8' });
  while (Number(jobs()) > 0) await new Promise((resolve) => setTimeout(resolve, 200));
  await first.stop();
}

/** The product as its start command runs it, on a data folder of its own. */
async function startProduct() {
  const server = spawn('bash', [`${PROJECT}scripts/start.sh`], {
    env: { ...process.env, PORT, DATA_FOLDER: `${FOLDER}/data`, LOG: 'off' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  for await (const output of server.stdout) if (String(output).includes('is ready')) break;
  server.stdout.resume();
  const database = execFileSync('bash', [`${PROJECT}scripts/pg.sh`, 'url'], {
    env: { ...process.env, PG_FOLDER: `${FOLDER}/data/postgres` },
    encoding: 'utf8',
  }).trim();
  return {
    database,
    pid: () => readFileSync(`${FOLDER}/data/server.pid`, 'utf8').trim(),
    async stop() {
      server.kill('SIGTERM');
      await once(server, 'exit');
    },
  };
}

/** How long the product takes for each step, by its API. */
async function bringIn(file: string) {
  let cookie = '';
  let token = '';
  async function call<Reply>(method: string, path: string, body?: FormData | object) {
    const isForm = body instanceof FormData;
    const reply = await fetch(`http://127.0.0.1:${PORT}/api${path}`, {
      method,
      headers: {
        cookie,
        'csrf-token': token,
        ...(body && !isForm && { 'content-type': 'application/json' }),
      },
      ...(body && { body: isForm ? body : JSON.stringify(body) }),
    });
    cookie = reply.headers.getSetCookie()[0]?.split(';')[0] ?? cookie;
    if (!reply.ok) throw new Error(`${method} ${path}: ${await reply.text()}`);
    // the caller names the shape that the contract gives the reply
    return (await reply.json()) as Reply;
  }
  ({ csrfToken: token } = await call<{ csrfToken: string }>('GET', '/session'));
  ({ csrfToken: token } = await call<{ csrfToken: string }>('POST', '/session/demo'));
  const study = await call<{ id: number }>('POST', '/studies', {
    name: file.slice(-9),
    purpose: '',
  });
  const path = `/studies/${study.id}`;
  const ended = async (job: number) => {
    for (;;) {
      const { state, problem } = await call<{ state: string; problem: unknown }>(
        'GET',
        `${path}/jobs/${job}`,
      );
      if (state === 'done') return;
      if (state !== 'waiting' && state !== 'running') throw new Error(JSON.stringify(problem));
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  };
  const form = new FormData();
  form.append('file', await openAsBlob(file), file);
  const sheet = await call<{ id: number; reading: { id: number } }>('POST', `${path}/sheets`, form);
  const read = await timedAsync(() => ended(sheet.reading.id));
  const { ready } = await call<{ ready: { settings: object } }>(
    'GET',
    `${path}/sheets/${sheet.id}`,
  );
  const step = `${path}/sheets/${sheet.id}`;
  const check = await timedAsync(() => call('POST', `${step}/check`, ready.settings));
  const { id } = await call<{ id: number }>('POST', `${step}/import`, ready.settings);
  return { read, check, import: await timedAsync(() => ended(id)) };
}

async function timedAsync(work: () => Promise<unknown>): Promise<number> {
  const before = performance.now();
  await work();
  return performance.now() - before;
}

async function best(times: number, measure: () => Promise<number>): Promise<number> {
  let least = Infinity;
  for (let n = 0; n < times; n++) least = Math.min(least, await measure());
  return least;
}
