import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Job, LedgerAnswer } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy, uploadSheet } from '../../test/study.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

const csv = (from: number) =>
  `id,Why?\n${Array.from({ length: 12 }, (_, i) => `${from + i},too dear on day ${i}`).join('\n')}\n`;

test('while a sheet is imported, its study is coded, others are, and people sign in', async () => {
  const study = await importStudy(client, csv(0));
  const other = await importStudy(client, csv(0));
  const answers = (await study.ledger()).answers;
  const [elsewhere] = (await other.ledger()).answers;
  const sheet = await uploadSheet(client, study.id, 'more.csv', Buffer.from(csv(100)));
  // the import stops in its middle, for as long as this transaction holds what it waits for
  const holding = server.orm.em.fork();
  await holding.begin();
  await holding.execute(`select pg_advisory_xact_lock(hashtext('reserve respondent'))`);
  const { body: job } = await client.send<Job>('POST', `${sheet.base}/import`, {
    body: sheet.ready.settings,
  });
  const waiting = () =>
    server.sql<{ n: number }>(
      `select count(*)::int as n from pg_locks l join pg_database d on d.oid = l.database
       where l.locktype = 'advisory' and not l.granted and d.datname = current_database()`,
    );
  while ((await waiting())[0]!.n === 0);

  const code = (of: typeof study, { id }: LedgerAnswer, name: string) =>
    of.code(id, { newCode: name });
  const { codeId } = await code(study, answers[0]!, 'Fares');
  // more at once than there are connections
  const saves = answers.slice(1).map(({ id }) => study.code(id, { codeId }));
  for (const { status } of await Promise.all(saves)) expect(status).toBe(200);
  expect((await code(other, elsewhere!, 'Fares')).status).toBe(200);
  const drawn = await client.send('POST', `${study.base}/questions/${study.question}/samples`, {
    body: { kind: 'random', size: 3, variableId: null },
  });
  expect(drawn.status).toBe(200);
  await server.enter('Ash');
  expect((await client.get<Job>(`${study.base}/jobs/${job.id}`)).body.state).toBe('running');

  await holding.commit();
  expect((await client.jobEnd(study.id, job.id)).state).toBe('done');
  expect((await study.ledger()).total).toBe(24);
});

test('imports into two studies do not wait for each other', async () => {
  const slow = await importStudy(client, csv(0));
  const quick = await importStudy(client, csv(0));
  const begin = async ({ id }: typeof slow) => {
    const sheet = await uploadSheet(client, id, 'more.csv', Buffer.from(csv(100)));
    const { body } = await client.send<Job>('POST', `${sheet.base}/import`, {
      body: sheet.ready.settings,
    });
    return body.id;
  };
  // one has its ids, and stops where it writes them, as somebody holds its question
  const holding = server.orm.em.fork();
  await holding.begin();
  await holding.execute('select from question where id = ? for update', [slow.question]);
  const job = await begin(slow);
  const waiting = () =>
    server.sql(
      `select from pg_stat_activity where wait_event_type = 'Lock' and datname = current_database()`,
    );
  while ((await waiting()).length === 0);
  expect((await client.jobEnd(quick.id, await begin(quick))).state).toBe('done');
  expect((await client.get<Job>(`${slow.base}/jobs/${job}`)).body.state).toBe('running');
  await holding.commit();
  expect((await client.jobEnd(slow.id, job)).state).toBe('done');
});
