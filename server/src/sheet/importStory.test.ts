import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ImportRecord, Job, SheetSettings } from '@yellow-thread/contract';
import { duplicateHash } from '@yellow-thread/core/text';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { bringIn, importStudy } from '../../test/study.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

/** Everything that imports write of a study, in an order of its own. */
const stateOf = (study: number) =>
  server.sql(
    `select r.external_id as id, r.weight, (
         select jsonb_object_agg(v.name, r.background->(v.id::text)) from variable v
         where v.study_id = r.study_id and r.background->>(v.id::text) is not null) as background,
       array(select q.wording || ': ' || s.text || ' ' || s.no_answer from response s
         join question q on q.id = s.question_id where s.respondent_id = r.id order by 1) as answers
     from respondent r where r.study_id = :study order by r.external_id`,
    { study },
  );
const columnsOf = (study: number) =>
  server.sql(
    `select 'variable' as what, name from variable where study_id = :study
     union select 'question', wording from question where study_id = :study order by 1, 2`,
    { study },
  );

/** What is kept beside the responses is as if it were computed from them now. */
async function expectKeptUp(study: number) {
  const counts = await server.sql(
    `select q.asked - (select count(*) from response r where r.question_id = q.id)::int as asked,
       q.answered - (select count(*) from response r
         where r.question_id = q.id and not r.no_answer)::int as answered
     from question q where q.study_id = :study`,
    { study },
  );
  expect(counts).toEqual(counts.map(() => ({ asked: 0, answered: 0 })));
  const texts = await server.sql<{ text: string; same: number }>(
    `select r.text, r.same::float as same from response r join question q on q.id = r.question_id
     where q.study_id = :study`,
    { study },
  );
  for (const { text, same } of texts) expect([text, same]).toEqual([text, duplicateHash(text)]);
}

const id = fc.constantFrom('R1', 'R2', 'R3', 'R4', 'R5', 'R6');
const row = fc.tuple(
  id,
  fc.constantFrom('', 'Tye', 'Hask', 'Lorn'),
  fc.constantFrom('', '3', '9', 'old'),
  fc.constantFrom('', 'the boat is always late', 'it is far too dear', 'n/a'),
);
const sheet = fc.record({
  as: fc.constantFrom<SheetSettings['as']>('respondents', 'details', 'answers', 'corrections'),
  rows: fc.uniqueArray(row, { minLength: 1, maxLength: 5, selector: ([name]) => name }),
  // which columns of background the sheet has, so that some come new with a later one
  home: fc.boolean(),
  score: fc.boolean(),
  asks: fc.constantFrom('Why?', 'What else?'),
});

test('however sheets follow each other, taking them back from the last on leads back step by step, and restoring leads forth', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(sheet, { minLength: 1, maxLength: 4 }), async (sheets) => {
      const study = await importStudy(client, 'id,Why?\nR1,it was cold and wet here\nR2,n/a\n');
      const states: unknown[] = [];
      const look = async () => {
        await expectKeptUp(study.id);
        return [await stateOf(study.id), await columnsOf(study.id)];
      };
      for (const { as, rows, home, score, asks } of sheets) {
        const before = await look();
        const cells = rows.map(([name, place, number, answer]) =>
          [name, ...(home ? [place] : []), ...(score ? [number] : []), answer].join(','),
        );
        const head = ['id', ...(home ? ['home'] : []), ...(score ? ['score'] : []), asks];
        const ended = await bringIn(
          client,
          study.id,
          `${head.join()}\n${cells.join('\n')}\n`,
          (now) => ({
            ...now,
            as,
            columns: head.map((name, c) => ({
              role:
                name === 'home'
                  ? 'category'
                  : name === 'score'
                    ? 'number'
                    : c === 0
                      ? 'id'
                      : 'question',
              name,
              of: '',
              separator: '',
              writing: '',
            })),
          }),
        );
        if (ended.state === 'done') states.push(before);
        // a sheet that stops leaves everything as it was
        else expect([ended.problem?.code, await look()]).toEqual(['sheet_stops', before]);
      }
      for (const before of states.toReversed()) {
        const { body } = await client.get<{ imports: ImportRecord[] }>(`${study.base}/imports`);
        const last = body.imports.find((one) => !one.undone)!;
        const go = async (way: 'undo' | 'restore') => {
          const address = `${study.base}/imports/${last.id}/${way}`;
          const { body: job } = await client.send<Job>('POST', address);
          expect((await client.jobEnd(study.id, job.id)).problem).toBeNull();
          return look();
        };
        const now = await look();
        expect(await go('undo')).toEqual(before);
        expect(await go('restore')).toEqual(now);
        expect(await go('undo')).toEqual(before);
      }
    }),
    { numRuns: 6, endOnFailure: true },
  );
  expect(server.errors).toEqual([]);
}, 120_000);
