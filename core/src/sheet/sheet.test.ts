import { describe, expect, test } from '@jest/globals';
import { guessRoles } from './guessRoles.js';
import { isNoAnswer } from './noAnswer.js';
import { planImport } from './planImport.js';
import type { ColumnRole, Table } from './table.js';
import { parseDate, parseNumber, parseYesNo } from './values.js';

const table = (columns: string[], ...rows: string[][]): Table => ({
  columns,
  rows,
  unevenRows: [],
});

test('reads numbers, dates (ISO 8601, day first) and yes or no as people write them', () => {
  expect(['12', '-0.5', '3,14', ' 7 ', '1e3'].map(parseNumber)).toEqual([12, -0.5, 3.14, 7, 1000]);
  expect(['', 'x', '1 000', '12a', '1.2.3'].map(parseNumber)).toEqual(Array(5).fill(null));
  expect(['2026-03-09', '2026-03-09T10:00', '9.3.2026', '31/12/2026'].map(parseDate)).toEqual([
    '2026-03-09',
    '2026-03-09',
    '2026-03-09',
    '2026-12-31',
  ]);
  expect(['2026-02-30', '31/13/2026', '9 March'].map(parseDate)).toEqual([null, null, null]);
  expect(['Yes', ' ja ', '0', 'maybe'].map(parseYesNo)).toEqual([true, true, false, null]);
});

test('what says nothing is no answer, in several languages; "nothing" is an answer', () => {
  for (const blank of [
    '',
    '  ',
    'n/a',
    'N/A.',
    '-',
    '--',
    '...',
    'No comment',
    'keine Angabe',
    'n.v.t.',
    'x',
  ])
    expect([blank, isNoAnswer(blank)]).toEqual([blank, true]);
  for (const said of ['Nothing', 'none', 'no', 'more boats', '👍', '船'])
    expect([said, isNoAnswer(said)]).toEqual([said, false]);
});

test('guesses roles from names and values, and says why', () => {
  const guesses = guessRoles(
    table(
      [
        'Respondent',
        'Home',
        'Age',
        'Came',
        'Car',
        'Weight',
        'What would you change?',
        'Second number',
      ],
      ['R1', 'Tye', '34', '2026-04-02', 'yes', '0.8', 'More boats in the evening please', 'A-9'],
      ['R2', 'Hask', '71', '2026-04-03', 'no', '1.2', 'The steps are too steep for me', 'A-8'],
      ['R3', 'Tye', '34', '2026-04-03', 'no', '1', '', 'A-7'],
    ),
  );
  expect(guesses.map((guess) => guess.role)).toEqual([
    'id',
    'category',
    'number',
    'date',
    'yes_no',
    'weight',
    'question',
    'category',
  ]);
  expect(guesses[0]!.reason).toBe('all 3 values differ');
  expect(guesses[6]!.reason).toBe('median 7 words, 100% distinct');
  expect(guesses[7]!.reason).toContain('already is the id');
});

describe('planImport', () => {
  const roles: ColumnRole[] = ['id', 'number', 'question', 'leave_out'];
  const plan = (...rows: string[][]) =>
    planImport(table(['id', 'age', 'Why?', 'phone'], ...rows), roles);

  test('plans respondents with background and responses, and leaves out what is left out', () => {
    const { respondents, variables, questions, findings } = plan(
      ['R1', '34', ' Because… ', '555'],
      ['R2', '', 'n/a', '556'],
    );
    expect(variables).toEqual([{ name: 'age', kind: 'number' }]);
    expect(questions).toEqual([{ wording: 'Why?', label: 'Why?' }]);
    expect(respondents).toEqual([
      {
        externalId: 'R1',
        weight: null,
        background: [34],
        responses: [{ text: ' Because… ', noAnswer: false }],
      },
      {
        externalId: 'R2',
        weight: null,
        background: [null],
        responses: [{ text: 'n/a', noAnswer: true }],
      },
    ]);
    expect(findings).toEqual([]);
    expect(JSON.stringify(respondents)).not.toContain('555');
  });

  test('says with row numbers what stops it', () => {
    const found = plan(['R1', '1', 'x', ''], ['R2', '1', 'x', ''], ['R1', '1', 'x', '']).findings;
    expect(found).toEqual([
      expect.objectContaining({ kind: 'stop', code: 'duplicate_id', rows: [2, 4] }),
    ]);
    const none = planImport(table(['a'], ['1']), ['leave_out']).findings;
    expect(none.filter((one) => one.kind === 'stop').map((one) => one.code)).toEqual([
      'no_question',
    ]);
    const bad = planImport(table(['w', 'q?'], ['-1', 'x'], ['1', 'x'], ['', 'x'], ['0', 'x']), [
      'weight',
      'question',
    ]).findings;
    expect(bad).toContainEqual(
      expect.objectContaining({ kind: 'stop', code: 'bad_weight', rows: [2, 4] }),
    );
  });

  test('says with row numbers what it will do about the rest', () => {
    const { findings, respondents } = plan(
      ['', 'old', 'a\u0000b\u0007', ''],
      ['R2', '3', 'broken \uFFFD', ''],
      ['R3', '4', 'lone \uD800 half', ''],
    );
    const rowsOf = (code: string) => findings.find((one) => one.code === code)?.rows;
    expect(rowsOf('blank_id')).toEqual([2]);
    expect(rowsOf('unreadable_value')).toEqual([2]);
    expect(rowsOf('control_characters')).toEqual([2]);
    expect(rowsOf('unreadable_characters')).toEqual([3]);
    expect(findings.every((one) => one.kind === 'notice')).toBe(true);
    expect(respondents[0]).toMatchObject({
      externalId: '2',
      background: [null],
      responses: [{ text: 'ab', noAnswer: false }],
    });
    expect(respondents[2]!.responses[0]!.text.isWellFormed()).toBe(true);
  });
});
