import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { problemSchema } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../test/app.js';
import { buildApp } from './app.js';
import { importStudy, uploadSheet } from '../test/study.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer({ largestSheet: 2 * 1024 * 1024 });
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

interface OpenApi {
  openapi: string;
  paths: Record<
    string,
    Record<string, { operationId?: string; responses: Record<string, { content?: object }> }>
  >;
  components: { schemas: Record<string, object> };
}

describe('the API describes itself', () => {
  test('every operation has a name and says what it replies; records are named schemas', async () => {
    const { body } = await client.get<OpenApi>('/docs/json');
    expect(body.openapi).toMatch(/^3\.1/);
    const names = [];
    for (const [path, methods] of Object.entries(body.paths))
      for (const [method, operation] of Object.entries(methods)) {
        expect([path, method, operation.operationId]).toEqual([path, method, expect.any(String)]);
        expect([path, operation.responses['200']?.content]).toEqual([path, expect.any(Object)]);
        names.push(operation.operationId);
      }
    expect(new Set(names).size).toBe(names.length);
    for (const record of ['Mention', 'Codebook', 'Suggestion', 'Report', 'TrainingRun'])
      expect(Object.keys(body.components.schemas)).toContain(record);
    const page = await client.get('/docs/');
    expect(page.text).toContain('swagger');
  });
});

test('figures about requests are told in the open text format, where they are asked for', async () => {
  const { orm, threads } = server;
  const measured = await buildApp({ orm, threads, demo: false, metrics: true });
  await measured.inject({ url: '/api/health' });
  const { body, headers } = await measured.inject({ url: '/api/metrics' });
  await measured.close();
  expect(headers['content-type']).toContain('text/plain; version=0.0.4');
  expect(body).toMatch(
    /^http_request_duration_seconds_count\{method="GET",route="\/api\/health",status="\d+"\} 1$/mu,
  );
  expect((await client.get('/metrics')).status).toBe(404);
});

describe('every error has one shape', () => {
  const expectProblem = (
    reply: { status: number; body: unknown },
    status: number,
    code: string,
  ) => {
    expect(reply.status).toBe(status);
    expect(problemSchema.parse(reply.body)).toMatchObject({ code });
  };

  test('an address that there is not, a body that does not fit, a body that is not JSON', async () => {
    expectProblem(await client.get('/nowhere'), 404, 'not_found');
    const unfit = await client.send<{ details: { fields: { at: string }[] } }>('POST', '/studies', {
      body: { name: '   ', purpose: '' },
    });
    expectProblem(unfit, 400, 'invalid_request');
    expect(unfit.body.details.fields[0]!.at).toBe('/name');
    const broken = await server.app.inject({
      method: 'PUT',
      url: '/api/password',
      headers: { 'content-type': 'application/json' },
      payload: '{"password": ',
    });
    expect(broken.statusCode).toBe(401);
    expect(problemSchema.safeParse(broken.json()).success).toBe(true);
  });

  test('whatever is written into a field or an address, it is kept, found or refused, never an accident', async () => {
    const study = await importStudy(client, 'id,Why?\n1,more boats\n');
    const answer = (await study.ledger()).answers[0]!.id;
    const { codeId } = await study.code(answer, { newCode: 'Boats' });
    const path = `${study.base}/questions/${study.question}`;
    const nasty = [
      '\u0000',
      'a\u0007b',
      '\uD800',
      '\u202Eabc',
      '%',
      `'; --`,
      '99999999999999',
      '-1',
      '1:x',
      '{}',
      '',
    ];
    const statuses = new Set<number>();
    for (const text of nasty) {
      const written = encodeURIComponent(text.toWellFormed());
      const replies = await Promise.all([
        client.send('POST', '/studies', { body: { name: text, purpose: text } }),
        client.send('POST', '/session', { body: { name: text, password: text } }),
        client.send('POST', `${study.base}/themes`, { body: { id: text, name: text } }),
        client.send('PATCH', `${study.base}/codes/${codeId}`, {
          body: { from: { definition: text }, to: { definition: text } },
        }),
        study.code(answer, { newCode: text }),
        ...[
          `${path}/ledger?words=${written}`,
          `${path}/answers?ids=${written}`,
          `${path}/review/${codeId}/suggestions?after=${written}`,
          `${path}/report?by=${written}`,
          `${path}/report/answers?column=${written}&code=${codeId}`,
          `${path}/look?within=${written}`,
          `/studies/${written}/codebook`,
        ].map((address) => client.get(address)),
      ]);
      for (const reply of replies) statuses.add(reply.status);
    }
    expect([...statuses].filter((status) => status >= 500)).toEqual([]);
    expect(statuses).toContain(400);
  });

  test('a full disk is said in a sentence, without what was to be written', async () => {
    await server.sql(`create function full_disk() returns trigger language plpgsql as $$
      begin raise exception 'no space for whispered' using errcode = '53100'; end $$`);
    await server.sql(
      'create trigger full_disk before insert on study execute function full_disk()',
    );
    const reply = await client.send('POST', '/studies', { body: { name: 'Late', purpose: '' } });
    await server.sql('drop trigger full_disk on study');
    expectProblem(reply, 507, 'disk_full');
    expect(reply.body.sentence).not.toContain('whispered');
  });

  test('a file over the limit is refused whole', async () => {
    const { body: study } = await client.send<{ id: number }>('POST', '/studies', {
      body: { name: 'Large', purpose: '' },
    });
    const content = Buffer.alloc(2 * 1024 * 1024 + 1, 'a,b\n');
    const reply = await client.upload<{ sentence: string }>(study.id, 'large.csv', content);
    expectProblem(reply, 413, 'too_large');
    expect(reply.body.sentence).toContain('2 MB');
    const [kept] = await server.sql<{ count: number }>('select count(*)::int as count from sheet');
    expect(kept!.count).toBe(0);
  });

  test('roles that do not fit the sheet are refused before anything is tried', async () => {
    const { body: study } = await client.send<{ id: number }>('POST', '/studies', {
      body: { name: 'Roles', purpose: '' },
    });
    const content = Buffer.from('id,Why?\n1,x y z w\n');
    const sheet = await uploadSheet(client, study.id, 'a.csv', content);
    const { settings } = sheet.ready;
    for (const step of ['check', 'difference', 'import'])
      expectProblem(
        await client.send('POST', `${sheet.base}/${step}`, {
          body: { ...settings, columns: settings.columns.slice(1) },
        }),
        400,
        'invalid_request',
      );
    // nor can it be reached through another study
    const other = await importStudy(client, 'id,Why?\n1,more boats\n');
    expectProblem(
      await client.send('POST', `${other.base}/sheets/${sheet.id}/check`, { body: settings }),
      404,
      'not_found',
    );
  });
});

test('a first look counts words and lengths, without the question’s words and those set aside', async () => {
  const study = await importStudy(
    client,
    'id,What about boats?\n1,the late boat was late again\n2,a late boat\n3,n/a\n4,"cold, cold quay"\n',
  );
  interface Look {
    answered: number;
    words: { word: string; answers: number }[];
    lengths: { from: number; answers: number }[];
  }
  const look = async () =>
    (await client.get<Look>(`${study.base}/questions/${study.question}/look`)).body;
  const first = await look();
  expect(first.answered).toBe(3);
  expect(first.words[0]).toMatchObject({ word: 'late', answers: 2 });
  // the question’s words are aside in all of their forms
  expect(first.words.map((one) => one.word)).toEqual(['late', 'again', 'cold', 'quay']);
  expect(first.lengths.slice(0, 2)).toEqual([
    { from: 1, answers: 2 },
    { from: 6, answers: 1 },
  ]);
  const setAside = ['again', 'COLD'];
  await client.send('PATCH', study.base, { body: { setAside } });
  expect((await look()).words.map((one) => one.word)).toEqual(['late', 'quay']);
  expect((await study.undo()).body.summary).toBe('setting words aside');
  expect((await look()).words).toEqual(first.words);
});
