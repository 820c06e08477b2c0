import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Codebook, Training } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { trainedDemo } from '../../test/demo.js';
import { readWholeLedger } from '../../test/study.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

test('the answers that are likely about a theme are those that the ledger shows, until they are settled', async () => {
  const study = await trainedDemo(server, client);
  const { themes } = (await client.get<Codebook>(`/studies/${study.id}/codebook`)).body;
  const path = `/studies/${study.id}/questions/${study.questions[0]!.id}`;
  const learnt = async () => (await client.get<Training>(`${path}/training`)).body.run!.themes;
  const about = (themeId: string) => readWholeLedger(client, path, `about=${themeId}&same=apart`);
  const first = await learnt();
  expect(first.length).toBeGreaterThan(0);
  for (const { themeId, likely, examples } of first) {
    expect(themes.some(({ id }) => id === themeId)).toBe(true);
    expect(examples).toBeGreaterThanOrEqual(5);
    const { answers } = await about(themeId);
    expect(answers).toHaveLength(likely);
    expect(answers.every(({ settled, noAnswer }) => !settled && !noAnswer)).toBe(true);
  }
  const { themeId, likely } = first.toSorted((x, y) => y.likely - x.likely)[0]!;
  const [answer] = (await about(themeId)).answers;
  await client.send('PUT', `/studies/${study.id}/responses/${answer!.id}/settlement`, {
    body: { settled: true },
  });
  expect((await about(themeId)).answers).toHaveLength(likely - 1);
  expect((await learnt()).find((one) => one.themeId === themeId)!.likely).toBe(likely - 1);
});
