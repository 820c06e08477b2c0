import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { EntityManager } from '@mikro-orm/postgresql';
import { countOf } from '@yellow-thread/core/groups';
import { rows } from '../database/index.js';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';
import { readMaterial, readPeople } from './material.js';
import { readColumns } from './members.js';

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
  const { codes, settled } = await readMaterial(em, people, study.question);
  const { id } = (await rows<{ id: number }>(em, 'select id from variable limit 1'))[0]!;
  const islands = await readColumns(em, people, study.id, id);
  return {
    people: people.ids.length,
    mentions: [...codes.values()].map(({ mentioned }) => countOf(mentioned)),
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
    `update respondent set background = '{}' where external_id = '2' and study_id = ?`,
    [study.id],
  );
  expect((await seen()).islands).toEqual({ Tye: 2, 'Not stated': 1 });
});

test('what stands within a change that is being made nobody else sees, during it and when it is taken back', async () => {
  const before = await seen();
  const takenBack = new Error('taken back');
  const change = server.orm.em.fork().transactional(async (tx) => {
    await rows(
      tx,
      `insert into respondent (study_id, external_id, background, import_id)
       select study_id, '4', background, import_id from respondent where external_id = '1' and study_id = ?`,
      [study.id],
    );
    expect((await seen(tx)).people).toBe(4);
    expect(await seen()).toEqual(before);
    // what the change itself sees next follows what it did next
    await rows(tx, `delete from respondent where external_id in ('3', '4') and study_id = ?`, [
      study.id,
    ]);
    expect((await seen(tx)).people).toBe(2);
    throw takenBack;
  });
  await expect(change).rejects.toBe(takenBack);
  expect(await seen()).toEqual(before);
});
