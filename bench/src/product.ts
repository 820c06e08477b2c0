import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, openAsBlob, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const PROJECT = fileURLToPath(new URL('../..', import.meta.url));
export const FOLDER = `${PROJECT}.bench`;
const PORT = process.env['BENCH_PORT'] ?? '4530';
export const address = `http://127.0.0.1:${PORT}`;

export type Product = Awaited<ReturnType<typeof startProduct>>;

/** Runs something with the product on a data folder of its own, after its first start has come to rest. */
export async function withProduct<Result>(
  work: (product: Product) => Promise<Result>,
  { encoder = false }: { encoder?: boolean } = {},
) {
  mkdirSync(FOLDER, { recursive: true });
  // what is measured is not measured beside a reading for meaning, but where that is what is measured
  if (!encoder) process.env['SENTENCE_ENCODER'] = 'none';
  await settleIn();
  const product = await startProduct();
  try {
    return await work(product);
  } finally {
    await product.stop();
    rmSync(FOLDER, { recursive: true, force: true });
  }
}

/** The first start trains the demo's models: they are no part of an import's time or memory. */
async function settleIn() {
  const first = await startProduct();
  const left = `select count(*) from job where state in ('waiting', 'running')`;
  const jobs = () => execFileSync('psql', [first.database, '-Atqc', left], { encoding: 'utf8' });
  while (Number(jobs()) > 0) await new Promise((resolve) => setTimeout(resolve, 200));
  await first.stop();
}

/** The product as its start command runs it. */
async function startServer(watch = false) {
  const server = spawn('bash', [`${PROJECT}scripts/start.sh`], {
    env: {
      ...process.env,
      PORT,
      DATA_FOLDER: `${FOLDER}/data`,
      BACKUP_HOURS: '0',
      ...(watch ? { LOG: 'warn', WATCH_EVENT_LOOP: 'on' } : { LOG: 'off' }),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const lines: string[] = [];
  // read on to its end: a server whose output nobody takes is another one
  await new Promise<void>((resolve) => {
    server.stdout.on('data', (output) => {
      lines.push(...String(output).split('\n'));
      if (String(output).includes('is ready')) resolve();
    });
    server.once('exit', () => resolve());
  });
  return {
    /** What it printed so far. */
    lines,
    ended: () => (server.exitCode === null ? once(server, 'exit') : Promise.resolve()),
    async stop() {
      server.kill('SIGTERM');
      await once(server, 'exit');
    },
  };
}

/** The product on a data folder of its own. */
async function startProduct() {
  let server = await startServer();
  return {
    /** Where its database is. */
    get database() {
      return execFileSync('bash', [`${PROJECT}scripts/pg.sh`, 'url'], {
        env: { ...process.env, PG_FOLDER: `${FOLDER}/data/postgres` },
        encoding: 'utf8',
      }).trim();
    },
    sql(text: string) {
      return execFileSync('psql', [this.database, '-Atqc', text], { encoding: 'utf8' });
    },
    pid: () => readFileSync(`${FOLDER}/data/server.pid`, 'utf8').trim(),
    /** The most memory that the server had resident since the last asking, in MB; counted from here on. */
    peak() {
      const process = `/proc/${this.pid()}`;
      const most = /VmHWM:\s+(\d+)/u.exec(readFileSync(`${process}/status`, 'utf8'))![1];
      writeFileSync(`${process}/clear_refs`, '5');
      return Math.round(Number(most) / 1024);
    },
    stop: () => server.stop(),
    /** Started again after its server was killed. */
    async again() {
      await server.ended();
      server = await startServer();
    },
    /** Its server with nothing in memory yet. */
    async restart({ watch = false } = {}) {
      await server.stop();
      server = await startServer(watch);
    },
    lines: () => server.lines,
  };
}

/** Somebody at the API, entered as the demo researcher. */
export async function enter(at = address) {
  let cookie = '';
  let token = '';
  async function call<Reply>(method: string, path: string, body?: FormData | object) {
    const isForm = body instanceof FormData;
    const reply = await fetch(`${at}/api${path}`, {
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
  ({ csrfToken: token } = await call<{ csrfToken: string }>('POST', '/session/demo'));
  /** Fetches a file and lets it go bit by bit. @returns its size in bytes */
  async function take(path: string): Promise<number> {
    const reply = await fetch(`${at}/api${path}`, { headers: { cookie } });
    if (!reply.ok) throw new Error(`${path}: ${await reply.text()}`);
    let size = 0;
    for await (const part of reply.body!) size += (part as Uint8Array).length;
    return size;
  }
  return { call, take, cookie: () => cookie };
}
export type Caller = Awaited<ReturnType<typeof enter>>['call'];

/** Brings a file into a new study by the API. @returns the study, and how long each step took */
export async function bringIn(call: Caller, file: string) {
  const { id: study } = await call<{ id: number }>('POST', '/studies', {
    name: file.slice(-9),
    purpose: '',
  });
  return { study, ...(await bringInto(call, study, await openAsBlob(file), file)) };
}

/**
 * Uploads a sheet to a study and brings it in as proposed.
 *
 * @returns how long each step took
 * @throws Error with the sentence of what went wrong
 */
export async function bringInto(call: Caller, study: number, content: Blob, name: string) {
  const path = `/studies/${study}`;
  const form = new FormData();
  form.append('file', content, name);
  const sheet = await call<{ id: number; reading: { id: number } }>('POST', `${path}/sheets`, form);
  const read = await timedAsync(() => ended(call, path, sheet.reading.id));
  const step = `${path}/sheets/${sheet.id}`;
  const { ready } = await call<{ ready: { settings: object } }>('GET', step);
  const check = await timedAsync(() => call('POST', `${step}/check`, ready.settings));
  const { id } = await call<{ id: number }>('POST', `${step}/import`, ready.settings);
  return { read, check, import: await timedAsync(() => ended(call, path, id)) };
}

/** In ms. The page asks four times a second; every asking takes the server's time from the job itself. */
const ASK_EVERY = 100;

/** Waits for a job of a study. */
export async function ended(call: Caller, study: string, job: number): Promise<void> {
  for (;;) {
    const { state, problem } = await call<{ state: string; problem: unknown }>(
      'GET',
      `${study}/jobs/${job}`,
    );
    if (state === 'done') return;
    if (state !== 'waiting' && state !== 'running') throw new Error(JSON.stringify(problem));
    await new Promise((resolve) => setTimeout(resolve, ASK_EVERY));
  }
}

export async function timedAsync(work: () => Promise<unknown>): Promise<number> {
  const before = performance.now();
  await work();
  return performance.now() - before;
}

export async function best(times: number, measure: () => Promise<number>): Promise<number> {
  let least = Infinity;
  for (let n = 0; n < times; n++) least = Math.min(least, await measure());
  return least;
}
