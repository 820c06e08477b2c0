import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ListedAssignment, Membership, ReadingAnswers, Role } from '@yellow-thread/contract';
import { ROLES } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { makePlaces } from '../../test/places.js';
import { importStudy, letIn } from '../../test/study.js';

let server: TestServer;
let people: Record<Role, Client>;
beforeAll(async () => {
  server = await startServer();
  const [owner, researcher, coder, reader] = await Promise.all(
    ['Olive', 'Reed', 'Clover', 'Ridge'].map((name) => server.enter(name)),
  );
  people = { owner: owner!, researcher: researcher!, coder: coder!, reader: reader! };
});
afterAll(() => server.stop());

async function team(study: number) {
  for (const role of ['researcher', 'coder', 'reader'] as const)
    await letIn(people.owner, study, people[role], role);
}

/** Written by hand, operation by operation: what the contract says must be this. */
const OWNERS = `archiveStudy changeMember changePrivacy deleteRespondent deleteStudy downloadPersonalData invite resetPassword withdrawInvitation`;
const CODERS = `addMention addNote codeSecondReading editLine editMention editNote getAnswers getGlossary getLedger
  getNearCodes getPins getReadingAnswers listAssignments listReadings redo removeMention removeNote setPin
  settleResponse undo`;
const READERS = `downloadReport downloadToneReport downloadTogether downloadWriteUp getAnswersBehind getCodesTogether
  getReport getToneReport getWriteUp listWriteUps readPicture`;
const MEMBERS = `changeMembership downloadCodebook getCodebook getJob getMembership getStudy getVariable listGroups listMembers
  removeMember`;

const mayAsk = (operation: string): readonly Role[] => {
  const isOf = (list: string) => list.split(/\s+/u).includes(operation);
  if (isOf(OWNERS)) return ['owner'];
  if (isOf(CODERS)) return ['owner', 'researcher', 'coder'];
  if (isOf(READERS)) return ['owner', 'researcher', 'reader'];
  return isOf(MEMBERS) ? ROLES : ['owner', 'researcher'];
};

test('each role may ask for its operations, and for no other that the API has', async () => {
  const places = await makePlaces(server, people.owner, 'quay');
  await team(Number(places['study']));
  const { body: api } = await people.owner.get<{
    paths: Record<string, Record<string, { operationId: string }>>;
  }>('/docs/json');
  const found: Record<string, Role[]> = {};
  const expected: Record<string, readonly Role[]> = {};
  for (const [path, methods] of Object.entries(api.paths)) {
    if (!path.includes('{study}')) continue;
    for (const [method, { operationId }] of Object.entries(methods)) {
      expected[operationId] = mayAsk(operationId);
      found[operationId] = [];
      // of another kind than any is: what may be asked is refused for that, and nothing is changed
      const address = path
        .replace('/api', '')
        .replace('{study}', String(places['study']))
        .replaceAll(/\{(\w+)\}/gu, (_, name: string) =>
          name === 'question' ? String(places['question']) : 'x',
        );
      const verb = method.toUpperCase() as 'GET';
      for (const role of ROLES) {
        if (verb !== 'GET' && role === 'owner' && /undo|redo|deleteStudy/u.test(operationId)) {
          found[operationId].push(role);
          continue;
        }
        const { body } = await people[role].send<{ code?: string } | undefined>(
          verb,
          address,
          verb === 'GET' ? {} : { body: {} },
        );
        if (body?.code !== 'not_your_role') found[operationId].push(role);
      }
    }
  }
  expect(found).toEqual(expected);
  expect(Object.keys(found).length).toBeGreaterThan(120);
  // no list names an operation that there is not
  for (const operation of `${OWNERS} ${CODERS} ${READERS} ${MEMBERS}`.split(/\s+/u))
    expect(found).toHaveProperty(operation);
}, 60_000);

test('a coder sees, codes and settles what is assigned to them, and nothing else', async () => {
  const { owner, coder } = people;
  const csv = ['id,home,Why?', ...Array.from({ length: 8 }, (_, i) => `${i},Tye,answer ${i % 7}`)];
  const study = await importStudy(owner, csv.join('\n'));
  await team(study.id);
  const { ids } = await study.ledger('same=apart');
  const { codeId, id: foreign } = await study.code(ids[1]!, { newCode: 'Boats' });
  const path = `${study.base}/questions/${study.question}`;
  const assign = (coderId: number, responseIds: number[], id = randomUUID()) =>
    owner.send('POST', `${path}/assignments`, { body: { id, coderId, responseIds } });
  const seen = async () =>
    (await coder.get<{ ids: number[] }>(`${path}/ledger?same=apart&show=all`)).body.ids;
  expect(await seen()).toEqual([]);
  const id = randomUUID();
  // the first has the same words as the last
  const wanted = [ids[0]!, ids[1]!, ids[7]!];
  // the same request twice assigns once
  await assign(coder.accountId, wanted.slice(0, 2), id);
  expect((await assign(coder.accountId, wanted.slice(0, 2), id)).status).toBe(200);
  expect(await seen()).toEqual(wanted);
  expect((await assign(coder.accountId, wanted)).body.code).toBe('nothing_to_assign');
  expect((await assign(people.reader.accountId, wanted)).status).toBe(404);
  const elsewhere = await importStudy(owner, 'id,Why?\n1,no boats\n');
  const [strange] = (await elsewhere.ledger()).ids;
  expect((await assign(coder.accountId, [strange!])).body.code).toBe('nothing_to_assign');

  const codeIt = (responseId: number, toSame = false) =>
    coder.send('POST', `${study.base}/mentions`, {
      body: { id: randomUUID(), responseId, codeId, start: null, end: null, toSame },
    });
  const settle = (response: number) =>
    coder.send('PUT', `${study.base}/responses/${response}/settlement`, {
      body: { settled: true },
    });
  const note = (body: object) =>
    coder.send('POST', `${study.base}/notes`, {
      body: {
        ...{ id: randomUUID(), text: 'hm', unsure: false, start: null, end: null },
        ...{ responseId: null, respondentId: null, codeId: null, ...body },
      },
    });
  const [{ respondent } = { respondent: 0 }] = await server.sql<{ respondent: number }>(
    'select respondent_id as respondent from response where id = :id',
    { id: ids[0]! },
  );
  for (const refused of [
    await codeIt(ids[2]!),
    await settle(ids[2]!),
    await note({ responseId: ids[2]! }),
    await note({ respondentId: respondent }),
    await coder.get(`${path}/answers?ids=${ids[2]!}`),
    await coder.get(`${study.base}/responses/${ids[2]!}/near`),
    // what another one coded stays, also in an answer of theirs
    await coder.send('DELETE', `${study.base}/mentions/${foreign}`),
  ])
    expect(refused.status).toBe(404);
  expect((await codeIt(ids[0]!, true)).status).toBe(200);
  expect((await settle(ids[0]!)).status).toBe(200);
  expect((await note({ responseId: ids[0]! })).status).toBe(200);
  const { answers } = (
    await coder.get<{ answers: { mentions: unknown[] }[] }>(`${path}/answers?ids=${ids[7]!}`)
  ).body;
  expect(answers[0]!.mentions).toHaveLength(1);
  const listed = async (client: Client) =>
    (await client.get<{ assignments: ListedAssignment[] }>(`${study.base}/assignments`)).body
      .assignments;
  expect(await listed(owner)).toMatchObject([
    { id, coder: 'Clover', assignedBy: 'Olive', size: 3, settled: 1 },
  ]);
  await assign(people.researcher.accountId, [ids[3]!]);
  expect([(await listed(owner)).length, (await listed(coder)).length]).toEqual([2, 1]);
  expect(
    (await owner.get<{ ids: number[] }>(`${path}/ledger?assigned=${coder.accountId}`)).body.ids,
  ).toEqual(wanted.slice(0, 2));
  const { assigned } = (await coder.get<Membership>(`${study.base}/membership`)).body;
  expect(assigned).toEqual([{ questionId: study.question, size: 3, left: 2 }]);

  // a second reading is theirs to do, of answers that are not assigned to them
  await owner.send('PUT', `${study.base}/responses/${ids[4]!}/settlement`, {
    body: { settled: true },
  });
  await assign(people.researcher.accountId, [ids[4]!]);
  const reading = randomUUID();
  await owner.send('POST', `${path}/readings`, {
    body: { id: reading, readerId: coder.accountId, size: 500, like: null },
  });
  const toRead = await coder.get<ReadingAnswers>(`${path}/readings/${reading}/answers`);
  expect(toRead.body.answers.map(({ responseId }) => responseId)).toContain(ids[4]);
  for (const { responseId } of toRead.body.answers)
    expect(
      (
        await coder.send('PUT', `${path}/readings/${reading}/answers`, {
          body: { responseId, codes: [codeId] },
        })
      ).status,
    ).toBe(200);
  expect((await coder.get(`${path}/readings/${reading}/agreement`)).status).toBe(403);
  // only who was asked for it
  const foreignReading = randomUUID();
  await owner.send('POST', `${path}/readings`, {
    body: { id: foreignReading, readerId: owner.accountId, size: 500, like: null },
  });
  expect((await coder.get(`${path}/readings/${foreignReading}/answers`)).body).toMatchObject({
    code: 'not_your_reading',
  });
  expect((await coder.send('POST', `${study.base}/undo`)).status).toBe(200);

  // taken back, it is no longer theirs; what they coded stays, and they undo what they did
  expect((await owner.send('DELETE', `${study.base}/assignments/${id}`)).status).toBe(200);
  expect(await seen()).toEqual([]);
  expect((await owner.send('POST', `${study.base}/undo`)).status).toBe(200);
  expect(await seen()).toEqual(wanted);
  expect((await coder.send('POST', `${study.base}/undo`)).status).toBe(200);
  // but nothing that they did in another role
  await owner.send('PATCH', `${study.base}/members/${coder.accountId}`, {
    body: { role: 'researcher' },
  });
  await coder.send('PATCH', study.base, {
    body: { from: { purpose: '' }, to: { purpose: 'To know' } },
  });
  const themes = await coder.send('POST', `${study.base}/themes`, {
    body: { id: randomUUID(), name: 'Sea' },
  });
  expect(themes.status).toBe(200);
  const edited = await coder.send('PATCH', `${study.base}/codes/${codeId}`, {
    body: { from: { name: 'Boats' }, to: { name: 'Ships' } },
  });
  expect(edited.status).toBe(200);
  await owner.send('PATCH', `${study.base}/members/${coder.accountId}`, {
    body: { role: 'coder' },
  });
  expect((await coder.send('POST', `${study.base}/undo`)).body.code).toBe('nothing_to_undo');
});
