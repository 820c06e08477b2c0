import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { StudyDetail } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { enterDemo } from '../../test/demo.js';
import { readWholeLedger } from '../../test/study.js';

let server: TestServer;
let client: Client;
let study: StudyDetail;
const folder = fileURLToPath(new URL('../../../demo', import.meta.url));
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
  study = await enterDemo(server, client);
  // a second start loads nothing
  expect((await enterDemo(server, client)).id).toBe(study.id);
  const { body } = await client.get<{ studies: unknown[] }>('/studies');
  expect(body.studies).toHaveLength(1);
});
afterAll(() => server.stop());

test('has the respondents, questions and background of the survey', () => {
  expect(study).toMatchObject({ respondents: 450, weighted: true });
  expect(study.questions.map(({ label, asked }) => [label, asked])).toEqual([
    ['Improve', 450],
    ['Value', 450],
    ['Decided against', 450],
  ]);
  // the third question was put to all and answered by about half
  expect(study.questions[2]!.answered / 450).toBeGreaterThan(0.4);
  expect(study.questions[2]!.answered / 450).toBeLessThan(0.6);
  const answered = study.questions.reduce((sum, question) => sum + question.answered, 0);
  expect(answered).toBeGreaterThanOrEqual(1000);
  expect(study.variables.map((variable) => variable.name)).toEqual([
    'Home',
    'Age group',
    'Traveller',
    'Crossings a month',
    'With a car',
    'Mobility need',
    'Satisfaction (0–10)',
    'Date',
    'Wave',
  ]);
});

test('starts with a random fifth of each question settled, coded at passages that stand in the text', async () => {
  for (const question of study.questions) {
    expect(question.sample).toEqual({
      size: question.settled,
      settled: question.settled,
      random: question.settled,
    });
    expect(question.settled / question.answered).toBeCloseTo(0.2, 1);
    const path = `/studies/${study.id}/questions/${question.id}`;
    const body = await readWholeLedger(client, path, 'show=sample');
    expect(body.answers.every((answer) => answer.settled && answer.inSample)).toBe(true);
    let passages = 0;
    for (const { text, mentions } of body.answers)
      for (const { start, end } of mentions) {
        if (start === null || end === null) continue;
        passages += 1;
        // a passage begins and ends at a word, not in the middle of one
        expect(text.slice(start, end).trim()).toBe(text.slice(start, end));
        expect(/\p{L}/u.test(text[start - 1] ?? ' ') && /\p{L}/u.test(text[start]!)).toBe(false);
        expect(end).toBeLessThanOrEqual(text.length);
      }
    expect(passages).toBeGreaterThan(
      0.8 * body.answers.filter((one) => one.mentions.length > 0).length,
    );
  }
});

test('the sheet to be imported by hand holds the same answers', async () => {
  const csv = await readFile(`${folder}/brindle-sound.csv`, 'utf8');
  const path = `/studies/${study.id}/questions/${study.questions[0]!.id}`;
  const { answers } = await readWholeLedger(client, path);
  for (const { text, externalId } of answers) {
    expect(csv).toContain(externalId);
    expect(csv).toContain(text.replaceAll('"', '""'));
  }
});
