import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type { AnswersBehind, CodesTogether, Report, StudyDetail } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy, readWholeLedger } from '../../test/study.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let questions: number[];
const codes: Record<string, string> = {};
// two questions; a mentions the fares in both, b in the second only, c answered only the first and d is open there
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
  study = await importStudy(
    client,
    [
      'id,What would you improve on the boats?,What do you value about the boats?',
      'a,Cheaper fares would help us. Fewer steps at the slip too.,the fares and the crew',
      'b,the steps at the slip are steep,honest fares all year',
      'c,a crew that says hello,',
      'd,the fares of last winter,a crew one knows',
    ].join('\n'),
  );
  const { body } = await client.get<StudyDetail>(study.base);
  questions = body.questions.map(({ id }) => id);
  for (const [q, question] of questions.entries()) {
    const { answers } = await readWholeLedger(
      client,
      `${study.base}/questions/${question}`,
      'same=apart',
    );
    for (const { id, text, externalId } of answers) {
      for (const word of ['fares', 'steps', 'crew']) {
        const at = text.indexOf(word);
        if (at < 0) continue;
        const known = codes[word];
        const made = await study.code(id, known ? { codeId: known } : { newCode: word }, [
          at,
          at + word.length,
        ]);
        codes[word] = made.codeId;
      }
      if (externalId !== 'd' || q === 1) await study.settle(id);
    }
  }
  await client.send('PUT', `${study.base}/bundles/${randomUUID()}`, {
    body: { name: 'Money and feet', codeIds: [codes['steps'], codes['fares']] },
  });
});
afterAll(() => server.stop());

const path = (q = 0) => `${study.base}/questions/${questions[q]!}`;
const report = async (query: string, q = 0) =>
  (await client.get<Report>(`${path(q)}/report?${query}`)).body;
const rowsOf = ({ rows }: Report) =>
  rows.map(({ name, cells }) => [name, cells[0]!.people, cells[0]!.base.people]);

test('in any question a person counts once, where all that they answered is settled', async () => {
  expect(rowsOf(await report('rows=codes&order=name'))).toEqual([
    ['crew', 1, 3],
    ['fares', 1, 3],
    ['steps', 2, 3],
  ]);
  const all = await report('questions=all&rows=codes&order=name');
  expect(rowsOf(all)).toEqual([
    ['crew', 2, 3],
    ['fares', 2, 3],
    ['steps', 2, 3],
  ]);
  expect(all.rows.find(({ name }) => name === 'fares')!.cells[0]!.mentions).toBe(3);
  // the answers behind it: a's two and b's one, of two people
  const behind = await client.get<AnswersBehind>(
    `${path()}/report/answers?questions=all&row=${codes['fares']!}&limit=2`,
  );
  expect(behind.body).toMatchObject({ total: 3, people: 2 });
  expect(behind.body.answers).toHaveLength(2);
  const rest = await client.get<AnswersBehind>(
    `${path()}/report/answers?questions=all&row=${codes['fares']!}&after=${behind.body.next}&words=FARES`,
  );
  expect(
    [...behind.body.answers, ...rest.body.answers].map((one) => one.questionId).sort(),
  ).toEqual([questions[0], questions[1], questions[1]]);
});

test('rows: bundles with their codes, chosen ones alone, by the largest difference', async () => {
  const bundles = await report('rows=bundles');
  expect(bundles.rows.map(({ kind, name, cells }) => [kind, name, cells[0]!.people])).toEqual([
    ['bundle', 'Money and feet', 2],
    ['code', 'steps', 2],
    ['code', 'fares', 1],
  ]);
  expect(bundles.rows[1]!.parentId).toBe(bundles.rows[0]!.id);
  expect(rowsOf(await report(`chosen=${codes['steps']!},${codes['crew']!}&order=name`))).toEqual([
    ['crew', 1, 3],
    ['steps', 2, 3],
  ]);
  const estimated = await report('estimated=true&questions=all');
  expect(estimated.notEstimated).toContain('one question');
  expect((await report('estimated=true')).notEstimated).toContain('random sample');
});

test('codes together: in one answer, in one line of it, and the answers with both', async () => {
  const pair = async (inOne: string) => {
    const { codes: found } = (await client.get<CodesTogether>(`${path()}/together?inOne=${inOne}`))
      .body;
    const other = found.findIndex(({ id }) => id === codes['steps']);
    const one = found.find(({ id }) => id === codes['fares'])!;
    return { n: one.n, found: one.found, both: one.cells[other]!.both };
  };
  // a mentions both, each in a line of its own; the settled answers have four lines
  expect(await pair('answer')).toEqual({ n: 3, found: 1, both: 1 });
  expect(await pair('line')).toEqual({ n: 4, found: 1, both: 0 });
  const { body } = await client.get<AnswersBehind>(
    `${path()}/report/answers?row=${codes['fares']!}&with=${codes['steps']!}`,
  );
  expect(body.answers.map(({ externalId }) => externalId)).toEqual(['a']);
  const inLine = async (one: string, other: string) => {
    const query = `row=${codes[one]!}&with=${codes[other]!}&inOne=line`;
    return (await client.get<AnswersBehind>(`${path()}/report/answers?${query}`)).body;
  };
  expect(await inLine('fares', 'steps')).toMatchObject({ total: 0, people: 0, answers: [] });
  // a code on the whole answer meets those of every line
  const { answers } = await study.ledger('same=apart');
  const a = answers.find(({ externalId }) => externalId === 'a')!;
  await study.code(a.id, { codeId: codes['crew']! });
  expect(await pair('line')).toEqual({ n: 4, found: 1, both: 0 });
  for (const one of ['fares', 'steps']) {
    const { total, people } = await inLine(one, 'crew');
    expect([total, people]).toEqual([1, 1]);
  }
  await study.undo();
});
