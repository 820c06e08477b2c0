import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { duplicateHash } from '@yellow-thread/core/text';
import type { MikroORM } from '@mikro-orm/postgresql';
import { createDatabase } from '../../test/databases.js';
import { openDatabase, rows, undoChange, type SqlValues } from './index.js';

let database: Awaited<ReturnType<typeof createDatabase>>;
let orm: MikroORM;
beforeAll(async () => {
  database = await createDatabase();
  orm = await openDatabase(database.url, { migrate: false });
});
afterAll(async () => {
  await orm.close();
  await database.drop();
});

test('servers that start at once on an empty database bring it up to date one by one', async () => {
  await sql('drop schema public cascade');
  await sql('create schema public');
  const started = await Promise.all([openDatabase(database.url), openDatabase(database.url)]);
  for (const one of started) await one.close();
  expect(await sql('select 1 from written')).toEqual([]);
});

test('a database that a newer version was at is refused in a sentence, and left as it is', async () => {
  await sql(
    `insert into mikro_orm_migrations (name) values ('Migration20991231000000_flying_boats')`,
  );
  await expect(openDatabase(database.url)).rejects.toThrow(
    /used by a newer version.*Migration20991231000000_flying_boats/u,
  );
});

const sql = <Row>(text: string, values: SqlValues = {}) => rows<Row>(orm.em.fork(), text, values);

test('a study of the first slice is brought up to date with everything that it holds', async () => {
  await sql('drop schema public cascade');
  await sql('create schema public');
  await orm.migrator.up({ to: 'Migration20261124000000_first_slice' });
  for (const line of [
    `insert into account (name) values ('a')`,
    `insert into study (name, purpose) values ('s', '')`,
    `insert into import (study_id, file_name, checksum, roles, findings, respondents, responses, imported_by)
     values (1, 'f', 'c', '[]', '[]', 3, 1, 1)`,
    `insert into variable (study_id, position, name, kind, distinct_values)
     values (1, 0, 'home', 'category', 3), (1, 1, 'n', 'number', 2)`,
    `insert into respondent (study_id, import_id, external_id, background)
     values (1, 1, 'R1', '{"1":"Tye","2":3}'), (1, 1, 'R2', '{"1":"Hask","2": null}'), (1, 1, 'R3', '{"1": null,"2":1}')`,
    `insert into question (study_id, position, label, wording) values (1, 0, 'q', 'Why')`,
    `insert into response (question_id, respondent_id, text, no_answer) values (1, 1, 'late', false)`,
    `insert into job (study_id, kind, payload, created_by) values (1, 'train', '{}', 1)`,
  ])
    await sql(line);
  await orm.migrator.up();
  expect(
    await sql('select variable_id as id, value, label, position from category order by 2'),
  ).toEqual([
    { id: 1, value: 'Hask', label: 'Hask', position: 1 },
    { id: 1, value: 'Tye', label: 'Tye', position: 2 },
  ]);
  expect(
    await sql(
      `select jsonb_array_length(no_answers) > 20 as listed, (select count(*)::int from respondent) as people,
         (select changed_at from response) as changed, (select kind from job) as job from study`,
    ),
  ).toEqual([{ listed: true, people: 3, changed: null, job: 'train' }]);
  expect(await sql('select asked, answered, same::float from question, response')).toEqual([
    { asked: 1, answered: 1, same: duplicateHash('Late!') },
  ]);
});

test('words that were struck are excluded, and a change that struck one is undone by its new name', async () => {
  await sql('drop schema public cascade');
  await sql('create schema public');
  await orm.migrator.up({ to: 'Migration20261130120000_thresholds' });
  const word = {
    id: '7f9d7f2e-9a53-4b8e-8c1c-0d7c9d8c9a11',
    studyId: 1,
    codeId: null,
    word: 'boat',
  };
  await sql(`insert into account (name) values ('a')`);
  await sql(`insert into study (name, purpose) values ('s', '')`);
  await sql(`insert into membership (study_id, account_id) values (1, 1)`);
  await sql(
    `insert into struck_word (id, study_id, code_id, word) values (:id, :studyId, :codeId, :word)`,
    word,
  );
  await sql(
    `insert into change (study_id, account_id, summary, touched, diff)
     values (1, 1, 'striking', '{"struck_word": 1}', :diff)`,
    { diff: JSON.stringify({ struck_word: { added: [word], updated: [], removed: [] } }) },
  );
  await orm.migrator.up();
  expect(await sql('select word, study_id as study from excluded_word')).toEqual([
    { word: 'boat', study: 1 },
  ]);
  expect(await sql('select touched from change')).toEqual([{ touched: { excluded_word: 1 } }]);
  await undoChange(orm.em.fork(), { studyId: 1, accountId: 1 });
  expect(await sql('select * from excluded_word')).toEqual([]);
});
