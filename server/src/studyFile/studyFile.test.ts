import { createHash, randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { PassThrough } from 'node:stream';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Job, Report, StudyFileManifest, StudySummary } from '@yellow-thread/contract';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { makePlaces } from '../../test/places.js';
import { importStudy } from '../../test/study.js';
import { saveCopy } from './saveCopy.js';

let server: TestServer;
let rowan: Client;
beforeAll(async () => {
  server = await startServer();
  rowan = await server.enter('Rowan');
});
afterAll(() => server.stop());

type Files = Record<string, Uint8Array>;
const save = async (study: number, by = rowan): Promise<Files> =>
  unzipSync((await by.get<never>(`/studies/${study}/copy`)).bytes);
const open = (files: Files, by = rowan) =>
  by.uploadTo<StudySummary & { code: string; sentence: string }>(
    '/study-copies',
    'copy.zip',
    zipSync(files, { level: 0 }),
  );
/** All that a file holds but for when it was saved. */
const contentOf = (files: Files) =>
  Object.fromEntries(
    Object.entries(files).map(([name, bytes]) => [
      name,
      strFromU8(bytes).replace(/"savedAt": "[^"]*"/u, ''),
    ]),
  );

/** A study with something of most kinds in it: trained, reviewed, read a second time, noted, grouped, mapped. */
async function fullStudy() {
  const places = await makePlaces(server, rowan, 'quay');
  const base = `/studies/${places['study']}`;
  const question = `${base}/questions/${places['question']}`;
  const { ids } = (await rowan.get<{ ids: number[] }>(`${question}/ledger?same=apart`)).body;
  await rowan.send('POST', `${question}/samples`, {
    body: { kind: 'random', size: 2, variableId: null },
  });
  for (const id of ids) {
    await rowan.send('POST', `${base}/mentions`, {
      body: {
        ...{ id: randomUUID(), responseId: id, codeId: places['code'] },
        ...{ start: null, end: null },
      },
    });
    await rowan.send('PUT', `${base}/responses/${id}/settlement`, { body: { settled: true } });
  }
  await rowan.send('POST', `${question}/readings`, {
    body: { id: randomUUID(), readerId: places['member'], size: 2, like: null },
  });
  await rowan.send('PUT', `${question}/tone/checks/${randomUUID()}`, {
    body: { responseId: ids[0]!, start: 0, end: 4, tone: 'positive', atRandom: false },
  });
  const { body: job } = await rowan.send<Job>('POST', `${question}/training`, { body: {} });
  expect((await rowan.jobEnd(Number(places['study']), job.id)).state).toBe('done');
  return {
    id: Number(places['study']),
    question: Number(places['question']),
    home: places['variable'],
  };
}

test('saved, opened and saved again a study is the same file, and its report has the same figures', async () => {
  const study = await fullStudy();
  const first = await save(study.id);
  const opened = await open(first);
  expect([opened.status, opened.body.sentence]).toEqual([200, undefined]);
  expect(opened.body).toMatchObject({ name: 'Test', respondents: 5, questions: 1 });
  const second = await save(opened.body.id);
  expect(contentOf(second)).toEqual(contentOf(first));
  // a copy of the copy, too
  const third = await open(second);
  expect(contentOf(await save(third.body.id))).toEqual(contentOf(first));

  const reportOf = async (id: number) => {
    const { questions, variables } = (
      await rowan.get<{ questions: { id: number }[]; variables: { id: number }[] }>(
        `/studies/${id}`,
      )
    ).body;
    const path = `/studies/${id}/questions/${questions[0]!.id}/report?counts=settled`;
    const { rows, columns } = (await rowan.get<Report>(`${path}&by=${variables[0]!.id}`)).body;
    return JSON.parse(
      JSON.stringify([rows, columns], (key, value: unknown) =>
        ['id', 'parentId', 'rule', 'key'].includes(key) ? null : value,
      ),
    ) as unknown;
  };
  expect(await reportOf(opened.body.id)).toEqual(await reportOf(study.id));
  // what is done in one is not done in the other; and it can be undone there
  const undone = await rowan.send('POST', `/studies/${opened.body.id}/undo`);
  expect(undone.status).toBe(200);
  expect(contentOf(await save(study.id))).toEqual(contentOf(first));
  expect(server.errors).toEqual([]);
});

test('a copy does without background, names in notes and history where that is asked for', async () => {
  const study = await fullStudy();
  const note = { respondentId: null, codeId: null, start: null, end: null, unsure: false };
  const [{ id } = { id: 0 }] = await server.sql<{ id: number }>(
    'select min(id) as id from response where question_id = :question',
    { question: study.question },
  );
  await rowan.send('POST', `/studies/${study.id}/notes`, {
    body: { ...note, id: randomUUID(), responseId: id, text: 'ask Mrs Harker, h@sea.example' },
  });
  const reply = await rowan.get<never>(
    `/studies/${study.id}/copy?without=background&without=names_in_notes&without=history`,
  );
  const files = unzipSync(reply.bytes);
  const all = Object.values(contentOf(files)).join('');
  for (const word of ['Hask', 'Harker', 'h@sea.example']) expect(all).not.toContain(word);
  expect(files['change.jsonl']).toHaveLength(0);
  expect(all).toContain('more quay');
  const opened = await open(files);
  expect([opened.status, opened.body.respondents]).toEqual([200, 5]);
});

test('a copy of the first form is opened: what came later is empty, or as it begins', async () => {
  const study = await fullStudy();
  const files = await save(study.id);
  delete files['assignment.jsonl'];
  const drop = (name: string, member: RegExp) => {
    files[name] = strToU8(strFromU8(files[name]!).replaceAll(member, ''));
  };
  drop('study.jsonl', /,"masks_for_readers":false/gu);
  drop('change.jsonl', /,"undoable":true/gu);
  const manifest = JSON.parse(strFromU8(files['manifest.json']!)) as StudyFileManifest;
  const tables = manifest.tables
    .filter(({ name }) => name !== 'assignment')
    .map((table) => ({
      ...table,
      bytes: files[`${table.name}.jsonl`]!.length,
      sha256: createHash('sha256').update(files[`${table.name}.jsonl`]!).digest('hex'),
    }));
  files['manifest.json'] = strToU8(JSON.stringify({ ...manifest, version: 1, tables }));
  expect(strFromU8(files['change.jsonl']!)).not.toContain('undoable');
  const opened = await open(files);
  expect([opened.status, opened.body.respondents]).toEqual([200, 5]);
  expect((await rowan.send('POST', `/studies/${opened.body.id}/undo`)).status).toBe(200);
});

test('a copy that nobody takes any more is given up, and its transaction ends', async () => {
  const study = await fullStudy();
  const to = new PassThrough({ highWaterMark: 1 });
  const away = new AbortController();
  const em = server.orm.em.fork();
  const saved = saveCopy(em, { studyId: study.id, leftOut: [], to, gone: away.signal });
  // the first bytes are written and wait for a reader who does not come
  await once(to, 'readable');
  away.abort();
  await expect(saved).rejects.toMatchObject({ name: 'AbortError' });
  expect(em.isInTransaction()).toBe(false);
  const open = await server.sql<{ n: number }>(
    `select count(*)::int as n from pg_stat_activity
     where datname = current_database() and state like 'idle in transaction%'`,
  );
  expect(open).toEqual([{ n: 0 }]);
});

test('somebody else opens it: people keep their names and cannot sign in by them; others see nothing', async () => {
  const study = await fullStudy();
  const tansy = await server.enter(`Tansy ${study.id}`);
  expect((await tansy.get(`/studies/${study.id}/copy`)).status).toBe(404);
  // who codes answers again may not see in a copy how they were coded
  const [{ reader } = { reader: 0 }] = await server.sql<{ reader: number }>(
    'select reader_id as reader from second_reading where study_id = :id',
    { id: study.id },
  );
  await server.sql('update second_reading set reader_id = :me where study_id = :id', {
    ...{ me: rowan.accountId, id: study.id },
  });
  const early = await rowan.get<{ code: string }>(`/studies/${study.id}/copy`);
  expect([early.status, early.body.code]).toEqual([409, 'reading_under_way']);
  await server.sql('update second_reading set reader_id = :reader where study_id = :id', {
    ...{ reader, id: study.id },
  });
  const opened = await open(await save(study.id), tansy);
  expect(opened.status).toBe(200);
  expect((await rowan.get(`/studies/${opened.body.id}`)).status).toBe(404);
  const history = (
    await tansy.get<{ changes: { by: string }[] }>(`/studies/${opened.body.id}/history`)
  ).text;
  expect(history).toContain('Rowan (from a copy)');
  const [{ hash } = { hash: 'x' }] = await server.sql<{ hash: string }>(
    `select password_hash as hash from account where name = 'Rowan (from a copy)'`,
  );
  expect(hash).toBe('');
  const entered = await server
    .visitor()
    .send('POST', '/session', { body: { name: 'Rowan (from a copy)', password: '' } });
  expect(entered.status).toBeGreaterThanOrEqual(400);
  expect(contentOf(await save(opened.body.id, tansy))['mention.jsonl']).toBe(
    contentOf(await save(study.id))['mention.jsonl'],
  );
});

test('what is no copy, damaged, newer or made up is refused in a sentence, and leaves nothing behind', async () => {
  const study = await importStudy(rowan, 'id,Why?\n1,the boats\n');
  await study.code((await study.ledger()).ids[0]!, { newCode: 'Boats' });
  const files = await save(study.id);
  const count = async () =>
    (await server.sql<{ n: number }>('select count(*)::int as n from study'))[0]!.n;
  const before = await count();
  const manifest = JSON.parse(strFromU8(files['manifest.json']!)) as {
    version: number;
    tables: { name: string; rows: number; bytes: number; sha256: string }[];
  };
  const refused = async (changed: Files) => {
    const { status, body } = await open(changed);
    return [status, body.code, body.sentence.endsWith('Nothing was opened.')];
  };
  const noZip = await rowan.uploadTo<{ code: string }>(
    '/study-copies',
    'a.zip',
    Buffer.from('id,Why?\n'),
  );
  expect([noZip.status, noZip.body.code]).toEqual([422, 'bad_study_file']);
  const asJson = (value: unknown) => strToU8(JSON.stringify(value));
  const bad = [422, 'bad_study_file', true];
  expect(await refused({ ...files, 'manifest.json': asJson({}) })).toEqual(bad);
  expect(await refused({ ...files, 'manifest.json': asJson({ ...manifest, version: 3 }) })).toEqual(
    [422, 'newer_study_file', true],
  );
  // a word of an answer, changed
  const other = strToU8(strFromU8(files['response.jsonl']!).replace('boats', 'goats'));
  expect(await refused({ ...files, 'response.jsonl': other })).toEqual(bad);
  /** The same with its checksum put right, as somebody would who makes a file up. */
  const forged = (name: string, change: (line: string) => string): Files => {
    const content = strToU8(change(strFromU8(files[`${name}.jsonl`]!)));
    const tables = manifest.tables.map((table) =>
      table.name === name
        ? {
            ...{ name, rows: strFromU8(content).split('\n').length - 1, bytes: content.length },
            sha256: createHash('sha256').update(content).digest('hex'),
          }
        : table,
    );
    return {
      ...files,
      [`${name}.jsonl`]: content,
      'manifest.json': asJson({ ...manifest, tables }),
    };
  };
  for (const made of [
    forged('response', (line) => line.replace('"respondent_id":1', '"respondent_id":7')),
    forged('response', (line) => line.replace('"respondent_id":1', '"respondent_id":"x"')),
    forged('response', (line) => line.replace('"text"', '"text\\"; drop table study; --"')),
    forged('response', () => '[]\n'),
    forged('study', (line) => line + line),
    forged('study', (line) => line.replace('"name":"Test"', '"name":"\\u0000"')),
    forged('change', (line) => line.replace(/"diff":\{/u, '"diff":{"note":7,')),
    forged(
      'saved_group',
      () =>
        `${JSON.stringify({ id: randomUUID(), study_id: 1, name: 'x' }).slice(0, -1)},"rule":${'['.repeat(50_000)}${']'.repeat(50_000)}}\n`,
    ),
    forged('question', (line) => line.replace('"study_id":1', '"study_id":2')),
    forged(
      'theme',
      () =>
        `${JSON.stringify({ id: randomUUID(), study_id: 1, name: 'x', ink: 'url(//x)', stitch: 'back', position: 1 })}\n`,
    ),
  ])
    expect(await refused(made)).toEqual(bad);
  expect(await count()).toBe(before);
});
