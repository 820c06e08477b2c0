import { randomUUID } from 'node:crypto';
import { gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Report, RespondentDeleted, StudyDetail, WriteUp } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { bringIn, importStudy, letIn } from '../../test/study.js';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await startServer();
  owner = await server.enter('Rowan');
});
afterAll(() => server.stop());

/** Words that are one respondent's alone: their id, what is known of them, what they said, and what was noted. */
const THEIRS = ['zz-quetzal-7', 'Quetzalholm', 'quetzals', 'quetzalnote', 'quetzalinbin'];
const SAID = 'the quetzals were late';

/** Every row of the database in which one of some words stands, packed ones among them. */
async function traces(words: readonly string[]): Promise<string[]> {
  const tables = await server.sql<{ name: string }>(
    `select table_name as name from information_schema.tables
     where table_schema = 'public' and table_type = 'BASE TABLE'`,
  );
  const found: string[] = [];
  for (const { name } of tables) {
    const all = await server.sql<{ row: string }>(`select to_jsonb(t)::text as row from ${name} t`);
    for (const { row } of all) {
      const packed = name === 'frozen_answers' ? (JSON.parse(row) as { rows: string }).rows : '';
      const text = packed ? gunzipSync(Buffer.from(packed.slice(2), 'hex')).toString() : row;
      for (const word of words) if (text.includes(word)) found.push(`${name}: ${word}`);
    }
  }
  return [...new Set(found)].sort();
}

/** A study in which one respondent left traces wherever they can. */
async function studyWithTraces() {
  const csv = [
    'id,home,Why?',
    `${THEIRS[0]!},${THEIRS[1]!},${SAID}`,
    ...Array.from({ length: 6 }, (_, i) => `${i},Tye,boat ${i}`),
  ];
  const study = await importStudy(owner, csv.join('\n'));
  const { answers } = await study.ledger('same=apart');
  const theirs = answers.find(({ text }) => text === SAID)!;
  const { id: mention, codeId } = await study.code(theirs.id, { newCode: 'Late' }, [4, 12]);
  for (const { id } of answers) {
    if (id !== theirs.id) await study.code(id, { codeId });
    await study.settle(id);
  }
  const send = async (method: 'POST' | 'PUT' | 'PATCH', path: string, body: object) => {
    const reply = await owner.send(method, `${study.base}${path}`, { body });
    expect([path, reply.status]).toEqual([path, 200]);
  };
  await send('PATCH', `/mentions/${mention}`, { typical: true });
  await send('POST', '/notes', {
    ...{ id: randomUUID(), text: `a ${THEIRS[3]!}`, unsure: false, start: null, end: null },
    ...{ responseId: theirs.id, respondentId: null, codeId: null },
  });
  const { variables } = (await owner.get<StudyDetail>(study.base)).body;
  await send('PATCH', `/respondents/${theirs.respondentId}`, {
    ...{ variableId: variables[0]!.id, value: 'Tye' },
  });
  const writeUp = randomUUID();
  const table = { id: randomUUID(), questionId: study.question, query: 'counts=settled' };
  const quote = (text: string) => ({
    type: 'blockquote',
    content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
  });
  await send('PUT', `/write-ups/${writeUp}`, {
    ...{ name: 'Findings', version: 0 },
    content: {
      ...{ tables: [table], pictures: [], background: [], masked: false, names: [] },
      body: { type: 'doc', content: [quote('“quetzals” (Tye)'), quote('“boat 1”')] },
    },
  });
  const frozen = randomUUID();
  await send('POST', `/write-ups/${writeUp}/freeze`, { id: frozen });
  // an import that was undone, of which everything can be restored
  expect(
    (await bringIn(owner, study.id, `id,home,Why?\n${THEIRS[4]!},Hask,again ${THEIRS[4]!}\n`))
      .state,
  ).toBe('done');
  const { imports } = (await owner.get<{ imports: { id: number }[] }>(`${study.base}/imports`))
    .body;
  const { body: job } = await owner.send<{ id: number }>(
    'POST',
    `${study.base}/imports/${imports[0]!.id}/undo`,
  );
  expect((await owner.jobEnd(study.id, job.id)).state).toBe('done');
  return { ...study, writeUp, frozen };
}

const forget = (study: { base: string }, externalId: string, by = owner) =>
  by.send<RespondentDeleted & { code: string }>('POST', `${study.base}/personal-data/deletion`, {
    body: { externalId },
  });

test('a respondent who is deleted leaves no word in any table; frozen figures stay as they were', async () => {
  const study = await studyWithTraces();
  expect((await traces(THEIRS)).length).toBeGreaterThan(10);
  const record = await owner.get<{ answers: { answer: string }[]; rows: Record<string, object[]> }>(
    `${study.base}/personal-data?externalId=${THEIRS[0]!}`,
  );
  expect(record.body.answers).toMatchObject([
    { answer: SAID, codes: [{ code: 'Late', passage: 'quetzals' }], notes: [{ author: 'Rowan' }] },
  ]);
  expect(Object.keys(record.body.rows)).toEqual(
    expect.arrayContaining(['respondent', 'response', 'mention', 'settlement', 'note']),
  );
  const frozenFigures = async () => {
    const { counted, content } = (
      await owner.get<WriteUp>(`${study.base}/write-ups/${study.frozen}`)
    ).body;
    return JSON.stringify([counted, content.tables]);
  };
  const before = await frozenFigures();
  const reportOf = async () =>
    (await owner.get<Report>(`${study.base}/questions/${study.question}/report?counts=settled`))
      .body.columns[0]!.counted;
  expect(await reportOf()).toBe(7);

  expect((await forget(study, 'nobody')).status).toBe(404);
  const gone = await forget(study, THEIRS[0]!);
  expect(gone.body).toMatchObject({ answers: 1, writeUps: 2 });
  expect((await forget(study, THEIRS[4]!)).body).toMatchObject({ answers: 1 });
  expect(await traces(THEIRS)).toEqual([]);
  expect(await frozenFigures()).toBe(before);
  expect(await reportOf()).toBe(6);
  const { body } = (await owner.get<WriteUp>(`${study.base}/write-ups/${study.writeUp}`)).body
    .content;
  expect(JSON.stringify(body)).toContain('“boat 1”');
  const { changes } = (
    await owner.get<{ changes: { summary: string }[] }>(`${study.base}/history?limit=100`)
  ).body;
  expect(changes[0]!.summary).toBe('deleting a respondent for good');
  // what others did is undone as before
  expect((await study.undo()).status).toBe(200);
  // what is left goes into a copy, which is opened again
  const copy = await owner.get<never>(`${study.base}/copy`);
  const opened = await owner.uploadTo('/study-copies', 'copy.zip', copy.bytes);
  expect(opened.status).toBe(200);
  expect(server.errors).toEqual([]);
});

test('readers see report and write-ups without names, ids and contact details where an owner says so', async () => {
  const csv = 'id,Why?\np-4711,ask Mrs Harker or h@sea.example\n2,late\n3,late\n';
  const study = await importStudy(owner, csv);
  const reader = await server.enter('Ridge');
  await letIn(owner, study.id, reader, 'reader');
  const { answers } = await study.ledger('same=apart');
  const { codeId } = await study.code(answers[0]!.id, { newCode: 'Crew' });
  for (const { id } of answers) await study.settle(id);
  const writeUp = randomUUID();
  const text = 'As Mrs Harker says, and Odell, h@sea.example';
  await owner.send('PUT', `${study.base}/write-ups/${writeUp}`, {
    body: {
      ...{ name: 'Findings', version: 0 },
      content: {
        tables: [{ id: randomUUID(), questionId: study.question, query: 'counts=settled' }],
        ...{ pictures: [], background: [], masked: true, names: ['Odell'] },
        body: {
          type: 'doc',
          content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
        },
      },
    },
  });
  const question = `${study.base}/questions/${study.question}`;
  const asked = [
    `${question}/report/answers?counts=settled&row=${codeId}&column=total`,
    `${study.base}/write-ups/${writeUp}`,
    `${study.base}/write-ups/${writeUp}/files/html`,
  ];
  const seen = async (by: Client) =>
    Promise.all(
      asked.map(async (path) => {
        const { status, text: sent } = await by.get(path);
        return [status, /Harker|Odell|h@sea\.example|p-4711/u.test(sent)];
      }),
    );
  const all = asked.map(() => [200, true]);
  expect(await seen(reader)).toEqual(all);
  const workbook = async () =>
    (await reader.get<never>(`${question}/report/files/xlsx?counts=settled`)).bytes.length;
  const whole = await workbook();
  await owner.send('PUT', `${study.base}/privacy`, { body: { masksForReaders: true } });
  expect(await seen(reader)).toEqual(asked.map(() => [200, false]));
  expect(await seen(owner)).toEqual(all);
  // the sheet of answers is not in it
  expect(await workbook()).toBeLessThan(whole);
});
