import { gunzipSync, gzipSync } from 'node:zlib';
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { renumberRow, type FileRow, type Renumbering } from './renumber.js';
import { FILE_TABLES, type Kind } from './tables.js';

const tableOf = (name: string) => FILE_TABLES.find((table) => table.name === name)!;
/** Numbers moved up, by how much differs from kind to kind; ids with their last digit turned round. */
const shift = (kind: Kind): number => 1000 + kind.length;
const turned = (id: string): string =>
  id.replace(/.$/u, (digit) => (15 - parseInt(digit, 16)).toString(16));
const there: Renumbering = { int: (kind, value) => value + shift(kind), uuid: turned };
const back: Renumbering = { int: (kind, value) => value - shift(kind), uuid: turned };

const number = fc.integer({ min: 1, max: 100_000 });
const uuid = fc.uuid({ version: 4 });
const mention = fc.record({
  ...{ id: uuid, responseId: number, codeId: uuid, coderId: number },
  ...{ start: fc.constant(3), end: fc.constant(7), typical: fc.boolean() },
});
const background = fc.dictionary(number.map(String), fc.constantFrom('Tye', 7, true, null));
const rowsOf: Record<string, fc.Arbitrary<FileRow>> = {
  respondent: fc.record({ id: number, study_id: number, external_id: fc.string(), background }),
  code: fc.record({ id: uuid, theme_id: uuid, name: fc.string(), questions: fc.array(number) }),
  assignment: fc.record({ id: uuid, coder_id: number, response_ids: fc.array(number) }),
  write_up: fc.record({
    id: uuid,
    content: fc.record({
      tables: fc.array(
        fc.record({ id: uuid, questionId: number, query: fc.constant('by=12&rows=book') }),
      ),
      body: fc.record({ type: fc.constant('doc'), text: uuid.map((id) => `see ${id}, 12 times`) }),
    }),
  }),
  change: fc.record({
    id: number,
    account_id: number,
    codes: fc.array(uuid),
    diff: fc.record({
      mention: fc.record({
        added: fc.array(mention),
        updated: fc.array(fc.record({ from: mention, to: mention })),
        removed: fc.array(mention),
      }),
      respondent: fc.record({
        added: fc.constant([]),
        updated: fc.array(
          fc.record({
            from: fc.record({ id: number, background }),
            to: fc.record({ id: number, background }),
          }),
        ),
        removed: fc.constant([]),
      }),
    }),
  }),
};

test('what was renumbered is the same when it is numbered back, and nothing in it was left out', () => {
  for (const [name, rows] of Object.entries(rowsOf))
    fc.assert(
      fc.property(rows, (row) => {
        const table = tableOf(name);
        const moved = renumberRow(table, row, there);
        expect(renumberRow(table, moved, back)).toEqual(row);
        // no id stays, wherever it stands
        const ids: string[] =
          JSON.stringify(row).match(/[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}/gu) ?? [];
        const text = JSON.stringify(moved);
        expect(ids.filter((id) => !ids.includes(turned(id)) && text.includes(id))).toEqual([]);
      }),
    );
});

test('numbers in bytes are renumbered one by one, and those in packed pages where they stand', () => {
  const ints = Buffer.alloc(12);
  [5, 6, 70_000].forEach((value, i) => ints.writeInt32LE(value, 4 * i));
  const sample = { run_id: 1, respondents: `\\x${ints.toString('hex')}`, sampled: '\\x01' };
  const moved = renumberRow(tableOf('run_sample'), sample, there);
  const bytes = Buffer.from(String(moved['respondents']).slice(2), 'hex');
  expect([0, 4, 8].map((at) => bytes.readInt32LE(at))).toEqual(
    [5, 6, 70_000].map((value) => value + shift('respondent')),
  );
  expect([moved['run_id'], moved['sampled']]).toEqual([1 + shift('run'), '\\x01']);
  const page = gzipSync(JSON.stringify([{ respondent: '12', responseId: 4 }])).toString('hex');
  const frozen = renumberRow(
    tableOf('frozen_answers'),
    { write_up_id: null, page: 0, rows: `\\x${page}` },
    there,
  );
  const unpacked = gunzipSync(Buffer.from(String(frozen['rows']).slice(2), 'hex')).toString();
  expect(JSON.parse(unpacked)).toEqual([{ respondent: '12', responseId: 4 + shift('response') }]);
});
