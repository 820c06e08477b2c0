import { execFileSync, spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { expect, request, test, type APIRequestContext } from '@playwright/test';
import { productOf } from './product.js';

const project = fileURLToPath(new URL('..', import.meta.url));
const { address, dataFolder } = productOf(0);
const port = Number(new URL(address).port) + 2;
/** What one request may keep everybody waiting for, on the machine on which a turn of `yardstick` takes so long. */
const LONGEST_MS = 100;
const YARDSTICK_MS = 280;
const ANSWERS = 8000;

/** How long this machine takes for a fixed piece of work, in ms of its processor. */
function yardstick(): number {
  const before = process.cpuUsage();
  let sum = 0;
  for (let i = 0; i < 1e8; i++) sum = (sum * 31 + i) | 0;
  // read, so that the loop is not left out
  return process.cpuUsage(before).user / 1000 + (sum === 0.5 ? 1 : 0);
}

/** A second server on the product's database that reports whatever keeps everybody waiting. */
async function startWatched() {
  const url = execFileSync('bash', [`${project}scripts/pg.sh`, 'url'], {
    env: { ...process.env, PG_FOLDER: `${dataFolder}/postgres` },
    encoding: 'utf8',
  }).trim();
  const server = spawn(process.execPath, [`${project}server/dist/main.js`], {
    env: {
      ...process.env,
      PORT: String(port),
      DATABASE_URL: url,
      LOG: 'warn',
      WATCH_EVENT_LOOP: 'on',
    },
  });
  let output = '';
  server.stdout.on('data', (chunk) => (output += String(chunk)));
  await expect.poll(() => output, { timeout: 60_000 }).toContain('is ready');
  return {
    stop: () => new Promise((resolve) => server.once('exit', resolve) && server.kill('SIGTERM')),
    holds: () =>
      output.split('\n').flatMap((line) => {
        if (!line.includes('the event loop was held')) return [];
        const { ms, requests } = JSON.parse(line) as { ms: number; requests: string[] };
        return [{ ms, requests }];
      }),
  };
}

async function bringIn(api: APIRequestContext, headers: Record<string, string>) {
  const post = async <Reply>(path: string, options: object) =>
    (await (await api.post(path, { headers, ...options })).json()) as Reply;
  const { id } = await post<{ id: number }>('/api/studies', {
    data: { name: 'Held', purpose: '' },
  });
  const rows = Array.from(
    { length: ANSWERS },
    (_, i) =>
      `${i},it was late on day ${i} and nobody told us anything about the boat ${i % 97}${i % 400 === 0 ? ` ${'to-and-fro-'.repeat(20)}` : ''}`,
  );
  const buffer = Buffer.from(`id,Why?\n${rows.join('\n')}\n`);
  const sheet = await post<{ id: number; reading: { id: number } }>(`/api/studies/${id}/sheets`, {
    multipart: { file: { name: 'held.csv', mimeType: 'text/csv', buffer } },
  });
  const ended = async (job: number) => {
    const state = async () =>
      ((await (await api.get(`/api/studies/${id}/jobs/${job}`)).json()) as { state: string }).state;
    await expect.poll(state, { timeout: 60_000 }).toBe('done');
  };
  await ended(sheet.reading.id);
  const step = `/api/studies/${id}/sheets/${sheet.id}`;
  const { ready } = (await (await api.get(step)).json()) as { ready: { settings: object } };
  await ended((await post<{ id: number }>(`${step}/import`, { data: ready.settings })).id);
  return { path: `/api/studies/${id}`, post };
}

test('no request keeps everybody waiting, however it was made', async () => {
  test.setTimeout(180_000);
  // the first two are not compiled yet; its speed changes while others use the machine
  const turns = [yardstick(), yardstick(), yardstick()].slice(2);
  const server = await startWatched();
  const api = await request.newContext({ baseURL: `http://127.0.0.1:${port}` });
  const entered = (await (await api.post('/api/session/demo')).json()) as { csrfToken: string };
  const headers = { 'csrf-token': entered.csrfToken };
  const { path, post } = await bringIn(api, headers);
  const { questions } = (await (await api.get(path)).json()) as { questions: { id: number }[] };
  const question = `${path}/questions/${questions[0]!.id}`;
  const wild = encodeURIComponent('*o*o*o*o*o*o*o*o*x');
  const codes = Array.from({ length: 2000 }, (_, c) => `Theme ${c % 400},Code ${c}`).join('\n');
  const nested = '<Code name="a" isCodable="true">'.repeat(20_000);
  for (const [name, text] of [
    ['codes.csv', `theme,code\n${codes}\n`],
    ['deep.qdc', `<CodeBook xmlns="urn:QDA-XML:codebook:1.0"><Codes>${nested}`],
  ] as const)
    await post(`${path}/codebook/files`, {
      multipart: { file: { name, mimeType: 'text/plain', buffer: Buffer.from(text) } },
    });
  for (const asked of [
    path,
    `${question}/ledger`,
    `${question}/report`,
    `${question}/left`,
    `${question}/look`,
    `${question}/ledger?match=wildcard&words=${wild}`,
    `${question}/hits?words=the&match=plain`,
    `${question}/hits?match=wildcard&words=${wild}`,
    `${question}/report/files/xlsx`,
  ])
    expect((await api.get(asked)).status()).toBe(200);
  turns.push(yardstick());
  const slowness = Math.max(1, Math.max(...turns) / YARDSTICK_MS);
  const held = server.holds().filter(({ ms }) => ms > LONGEST_MS * slowness);
  await server.stop();
  expect(held).toEqual([]);
});
