import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { EntityManager } from '@mikro-orm/postgresql';
import { countOf } from '@yellow-thread/core/groups';
import { rows } from '../database/index.js';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';
import { readMaterial } from './material.js';
import { readColumns } from './members.js';
import { readPeople } from './people.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
  study = await importStudy(client, 'id,Island,Why?\n1,Tye,fares\n2,Rook,boats\n3,Tye,crew\n');
});
afterAll(() => server.stop());

/** Who there is, how many mention what, and how many live where, as a request would read it. */
async function seen(em: EntityManager = server.orm.em.fork()) {
  const people = await readPeople(em, study.id);
  const { codes, rowOf, settled } = await readMaterial(em, people, study.question);
  const { id } = (await rows<{ id: number }>(em, 'select id from variable limit 1'))[0]!;
  const islands = await readColumns(em, { people, studyId: study.id, variableId: id });
  return {
    people: people.ids.length,
    mentions: [...codes.keys()].map((id) => countOf(rowOf(id, 'decided').mentioned)),
    settled: countOf(settled),
    islands: Object.fromEntries(islands.map(({ label, members }) => [label, countOf(members)])),
  };
}

test('what was read is read again after every change, whoever made it and however', async () => {
  const before = { people: 3, mentions: [], settled: 0, islands: { Tye: 2, Rook: 1 } };
  expect(await seen()).toEqual(before);
  expect(await seen()).toEqual(before);
  const { answers } = await study.ledger();
  await study.code(answers[0]!.id, { newCode: 'Price' });
  expect(await seen()).toEqual({ ...before, mentions: [1] });
  await study.settle(answers[0]!.id);
  expect(await seen()).toEqual({ ...before, mentions: [1], settled: 1 });
  await study.undo();
  await study.undo();
  expect(await seen()).toEqual(before);
  // by no road of the product
  await server.sql(
    `update respondent set background = '{}' where external_id = '2' and study_id = :studyId`,
    { studyId: study.id },
  );
  expect((await seen()).islands).toEqual({ Tye: 2, 'Not stated': 1 });
});

test('what stands within a change that is being made nobody else sees, during it and when it is undone', async () => {
  const before = await seen();
  const takenBack = new Error('taken back');
  const change = server.orm.em.fork().transactional(async (tx) => {
    await rows(
      tx,
      `insert into respondent (study_id, external_id, background, import_id)
       select study_id, '4', background, import_id from respondent where external_id = '1' and study_id = :studyId`,
      { studyId: study.id },
    );
    expect((await seen(tx)).people).toBe(4);
    expect(await seen()).toEqual(before);
    // what the change itself sees next follows what it did next
    await rows(
      tx,
      `delete from respondent where external_id in ('3', '4') and study_id = :studyId`,
      { studyId: study.id },
    );
    expect((await seen(tx)).people).toBe(2);
    throw takenBack;
  });
  await expect(change).rejects.toBe(takenBack);
  expect(await seen()).toEqual(before);
});

test('who there is and who answered are kept while people code, and read again when they are written', async () => {
  const people = () => readPeople(server.orm.em.fork(), study.id);
  const before = await people();
  const { answers } = await study.ledger();
  await study.code(answers[1]!.id, { newCode: 'Boats' });
  const coded = await people();
  expect(coded).not.toBe(before);
  expect(coded.ids).toBe(before.ids);
  expect([coded.asWritten, coded.asAnswered]).toEqual([before.asWritten, before.asAnswered]);
  expect(coded.asWritten).toBe(before.asWritten);
  expect(coded.asAnswered).toBe(before.asAnswered);
  // settling touches the answer itself, but not who answered
  await study.settle(answers[1]!.id);
  expect((await people()).asAnswered).toBe(before.asAnswered);

  const ofStudy = 'study_id = (select max(id) from study)';
  const writes: [sql: string, of: 'people' | 'answers'][] = [
    [`update respondent set weight = 2 where ${ofStudy}`, 'people'],
    [`update category set label = 'Big island' where value = 'Tye'`, 'people'],
    [`update variable set name = 'Home' where ${ofStudy}`, 'people'],
    [`update response set no_answer = true where id = ${answers[0]!.id}`, 'answers'],
    [`delete from respondent where external_id = '3' and ${ofStudy}`, 'people'],
  ];
  let last = await people();
  for (const [sql, of] of writes) {
    await server.sql(sql);
    const now = await people();
    expect([sql, now.asWritten !== last.asWritten, now.asAnswered !== last.asAnswered]).toEqual([
      sql,
      of === 'people',
      true,
    ]);
    last = now;
  }
  const after = await seen();
  expect(after).toMatchObject({ people: 2, settled: 1, islands: { 'Big island': 1 } });
  const { answered, asked } = await readMaterial(server.orm.em.fork(), last, study.question);
  expect([countOf(asked), countOf(answered)]).toEqual([2, 1]);
});
