import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Codebook, Training } from '@yellow-thread/contract';
import { trainQuestion, type TrainingInput } from '@yellow-thread/core/learning';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { trainedDemo } from '../../test/demo.js';
import { readWholeLedger } from '../../test/study.js';
import { partThemes, withThemes } from './themes.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

test('a theme is learnt from examples of any of its codes where one of these has too few', () => {
  const about = [
    ...['the fare is dear', 'a dear ticket', 'what a dear fare', 'ticket and fare', 'dear, dear'],
    ...['the view', 'a kind crew', 'the seals', 'more boats', 'a warm deck', 'the early boat'],
  ];
  const input: TrainingInput = {
    seed: 1,
    codes: ['fares', 'tickets', 'crew'].map((id) => ({
      ...{ id, name: id, definition: '', include: '' },
    })),
    answers: [
      ...about.map((text, i) => ({
        ...{ text, settled: true },
        codes: new Set(i < 3 ? ['fares'] : i < 5 ? ['tickets'] : []),
      })),
      { text: 'so dear a fare', settled: false, codes: new Set<string>() },
      { text: 'the crew again', settled: false, codes: new Set<string>() },
    ],
  };
  const themes = [
    { id: 'price', parts: ['fares', 'tickets'] },
    { id: 'people', parts: ['crew'] },
  ];
  const asked = withThemes(input, themes);
  expect(asked.codes.map(({ id }) => id)).toEqual(['fares', 'tickets', 'crew', 'price']);
  const { codes, themes: learnt } = partThemes(
    asked,
    trainQuestion(asked).codes,
    input.answers.map((_, i) => 100 + i),
  );
  expect(codes.map(({ state }) => state)).toEqual(['too_few', 'too_few', 'too_few']);
  expect(learnt).toMatchObject([{ themeId: 'price', examples: 5, answers: [111] }]);
  // with examples enough of each code nothing is asked about themes
  const enough = { ...input, answers: [...input.answers, ...input.answers, ...input.answers] };
  expect(withThemes(enough, themes)).toBe(enough);
});

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
