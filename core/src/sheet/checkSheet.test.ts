import { describe, expect, test } from '@jest/globals';
import { checkSheet } from './checkSheet.js';
import { findHead } from './heads.js';
import { NO_ANSWERS } from './noAnswer.js';
import { rowReader } from './rowReader.js';
import type { ColumnRole, ColumnSetting, SheetSettings } from './settings.js';

const setting = (
  role: ColumnRole,
  name = '',
  more: Partial<ColumnSetting> = {},
): ColumnSetting => ({
  role,
  name,
  of: '',
  separator: '',
  writing: '',
  ...more,
});
const settingsOf = (
  columns: ColumnSetting[],
  more: Partial<SheetSettings> = {},
): SheetSettings => ({
  as: 'respondents',
  matches: [],
  columns,
  duplicates: 'stop',
  keepSpellings: [],
  noAnswers: [...NO_ANSWERS],
  answersDespite: [],
  asides: { brackets: [], leading: [] },
  wave: '',
  ...more,
});
const heads = (...names: string[]) => names.map((name) => ({ name, code: '' }));

describe('rowReader', () => {
  test('joins text columns of one question, each part on a line of its own', () => {
    const columns = [setting('question', 'Why?'), setting('question', 'Why?')];
    const reader = rowReader(heads('First reason', 'Second reason'), settingsOf(columns));
    expect(reader.questions).toEqual([{ wording: 'Why?', label: 'Why?', of: '' }]);
    expect(reader.read(['It is dry', 'It is quick']).responses[0]!.text).toBe(
      'It is dry\nIt is quick',
    );
    expect(reader.read(['', ' It is quick']).responses[0]).toMatchObject({
      text: ' It is quick',
      noAnswer: false,
    });
    expect(reader.read(['', '']).responses[0]).toMatchObject({ text: '', noAnswer: true });
  });

  test('takes "other" as asked only of those who wrote something', () => {
    const columns = [setting('category', 'Home'), setting('question', 'Other', { of: 'Home' })];
    const reader = rowReader(heads('Home', 'Other'), settingsOf(columns));
    expect(reader.read(['Tye', '']).responses).toEqual([null]);
    expect(reader.read(['Other', 'a boat']).responses[0]).toMatchObject({ text: 'a boat' });
  });

  test('reads numbers, weights and dates as the column is written', () => {
    const columns = [
      setting('number', 'Income', { writing: 'comma_groups' }),
      setting('weight', '', { writing: 'point_groups' }),
      setting('date', 'Came', { writing: 'month_first' }),
    ];
    const reader = rowReader(heads('Income', 'Weight', 'Came'), settingsOf(columns));
    expect(reader.read(['45,000', '1.200,5', '3/9/2026 14:05'])).toMatchObject({
      background: [45000, '2026-03-09'],
      weight: 1200.5,
    });
  });

  test('an answer of nothing but probes is no answer', () => {
    const asides = { brackets: ['[]'], leading: ['INT:'] };
    const reader = rowReader(heads('q'), settingsOf([setting('question', 'q')], { asides }));
    const noAnswer = (text: string) => reader.read([text]).responses[0]!.noAnswer;
    expect(['[pause]', 'INT: anything?', 'n/a [laughs]', 'yes [laughs]'].map(noAnswer)).toEqual([
      true,
      true,
      true,
      false,
    ]);
  });

  test('takes codes given before, one a column or several in a cell, as mentions', () => {
    const columns = [
      setting('question', 'q'),
      setting('codes', 'q'),
      setting('codes', 'q'),
      setting('codes', 'q', { separator: ';' }),
    ];
    const reader = rowReader(heads('q', 'Late', 'Dear', 'codes'), settingsOf(columns));
    const given = (...cells: string[]) => {
      const { codes, settled } = reader.read(cells).responses[0]!;
      return [codes.map((code) => reader.codes[code]), settled];
    };
    expect(given('wet', '1', '0', '')).toEqual([['Late'], true]);
    expect(given('wet', '2', 'yes', 'Wet ; late;')).toEqual([
      ['Late', 'Late', 'Dear', 'Wet', 'Late'],
      true,
    ]);
    expect(given('wet', '0', '', '')).toEqual([[], true]);
    expect(given('wet', '', '', '')).toEqual([[], false]);
  });

  test('one code may be given to several questions, a block of columns each', () => {
    const columns = [
      setting('question', 'best'),
      setting('codes', 'best'),
      setting('codes', 'best'),
      setting('question', 'worst'),
      setting('codes', 'worst'),
      setting('codes', 'worst'),
    ];
    const { columns: named } = findHead([
      ['best', 'Late', 'Dear (2)', 'worst', 'Late', 'Dear (2)'],
      ['wet', '1', '0', 'dry', '0', '1'],
    ])!;
    expect(new Set(named.map(({ name }) => name)).size).toBe(6);
    const reader = rowReader(named, settingsOf(columns));
    const { responses } = reader.read(['wet', '1', '0', 'dry', '0', '1']);
    // a number that is part of a code's own name stays
    expect(reader.codes).toEqual(['Late', 'Dear (2)']);
    expect(responses.map((one) => one!.codes.map((code) => reader.codes[code]))).toEqual([
      ['Late'],
      ['Dear (2)'],
    ]);
  });

  test('makes a yes-or-no variable of each tick box and of each choice', () => {
    const columns = [setting('ticked', 'Bus'), setting('choices', 'Uses', { separator: ';' })];
    const rows = [
      ['x', 'boat;car'],
      ['', 'boat'],
      ['no', ''],
    ];
    const first = rowReader(heads('Bus', 'Uses'), settingsOf(columns));
    for (const row of rows) first.read(row);
    const second = rowReader(heads('Bus', 'Uses'), settingsOf(columns), first.found());
    expect(second.variables.map((variable) => variable.name)).toEqual([
      'Bus',
      'Uses: boat',
      'Uses: car',
    ]);
    expect(rows.map((row) => second.read(row).background)).toEqual([
      [true, true, true],
      [false, true, false],
      [false, null, null],
    ]);
  });
});

describe('checkSheet', () => {
  const columns = [
    setting('id'),
    setting('number', 'age'),
    setting('category', 'home'),
    setting('question', 'Why?'),
    setting('leave_out'),
  ];
  const names = heads('id', 'age', 'home', 'Why?', 'phone');
  const check = (
    rows: string[][],
    more: Partial<SheetSettings> = {},
    known: string[] = [],
    skip: number[] = [],
  ) => {
    const run = checkSheet({
      columns: names,
      settings: settingsOf(columns, more),
      known: new Set(known),
      skip: new Set(skip),
      seed: 1,
    });
    for (const [r, row] of rows.entries()) run.add(r + 2, row);
    return run.settle();
  };
  const found = (outcome: ReturnType<typeof check>, code: string) =>
    outcome.findings.find((one) => one.code === code);

  test('counts what will be imported, and leaves out what is left out', () => {
    const outcome = check([
      ['R1', '34', 'Tye', 'Because …', '555'],
      ['R2', '', 'Hask', 'n/a', '556'],
    ]);
    expect(outcome.findings).toEqual([]);
    expect(outcome.respondents).toBe(2);
    expect(outcome.questions[0]).toMatchObject({ answered: 1, noAnswer: 1, notAsked: 0 });
    expect(outcome.questions[0]!.proposed).toEqual([
      { text: 'n/a', count: 1, counts: 'no_answer' },
    ]);
    expect(outcome.variables.map(({ stated, different }) => [stated, different])).toEqual([
      [1, 1],
      [2, 2],
    ]);
    expect(JSON.stringify(outcome)).not.toContain('555');
  });

  test('offers short phrases that many wrote and that say nothing, and leaves the choice', () => {
    const texts = ['See above.', 'see above', 'see above', 'As I said', 'too late', 'too late'];
    const outcome = check([
      ...[...texts, 'too late'].map((text, r) => [`R${r}`, '', '', text, '']),
      ['R9', '', '', 'as i said', ''],
    ]);
    expect(outcome.questions[0]!.proposed).toEqual([
      { text: 'See above.', count: 3, counts: 'answer' },
    ]);
    expect(outcome.questions[0]).toMatchObject({ answered: 8, noAnswer: 0 });
  });

  test('does with repeated ids what the researcher says, and counts accordingly', () => {
    const rows = [
      ['R1', '1', '', 'one', ''],
      ['R2', '1', '', 'two', ''],
      ['R1', '1', '', '', ''],
    ];
    expect(found(check(rows), 'duplicate_id')).toMatchObject({ kind: 'stop', rows: [2, 4] });
    const first = check(rows, { duplicates: 'first' });
    expect([first.skipped, found(first, 'duplicate_id')!.kind]).toEqual([[4], 'notice']);
    const last = check(rows, { duplicates: 'last' }, [], [2]);
    expect([last.skipped, last.questions[0]!.answered]).toEqual([[2], 1]);
    const all = check(rows, { duplicates: 'suffix' });
    expect([all.respondents, all.renamed]).toEqual([3, [[4, 'R1 (2)']]]);
  });

  test('says which respondents the study has already, and passes them over', () => {
    const outcome = check(
      [
        ['R1', '', '', 'x', ''],
        ['R9', '', '', 'y', ''],
      ],
      {},
      ['R9'],
    );
    expect(found(outcome, 'known_id')).toMatchObject({ kind: 'notice', rows: [3] });
    expect(outcome.respondents).toBe(1);
  });

  test('joins spellings of a category, or keeps them apart', () => {
    const rows = ['Tye', 'tye', 'Tye', 'Old  Quay', 'Old Quay'].map((home, i) => [
      String(i),
      '',
      home,
      'x',
      '',
    ]);
    const outcome = check(rows);
    expect(outcome.variables[1]!.categories!.map(({ value, label }) => [value, label])).toEqual([
      ['Tye', 'Tye'],
      ['tye', 'Tye'],
      ['Old  Quay', 'Old  Quay'],
      ['Old Quay', 'Old  Quay'],
    ]);
    expect(found(outcome, 'spellings')).toMatchObject({ kind: 'notice', rows: [3, 6] });
    const apart = check(rows, { keepSpellings: ['home'] });
    expect(apart.variables[1]!.categories!.every(({ value, label }) => value === label)).toBe(true);
  });

  test('tells of times of day that dates are kept without', () => {
    const columns = [setting('date', 'Came')];
    const check = checkSheet({ columns: heads('Came'), settings: settingsOf(columns), seed: 1 });
    ['2026-03-09T14:05:00', '9.3.2026 00:00', '2026-03-09', '2026-03-09 00:00:30'].forEach(
      (cell, r) => check.add(r + 2, [cell]),
    );
    const told = check.settle().findings.find(({ code }) => code === 'time_of_day');
    expect(told).toMatchObject({ kind: 'notice', rows: [2, 5], about: 'Came' });
  });

  test('errors of formulas count as blank, and are told of', () => {
    const columns = [setting('id'), setting('number', 'Age'), setting('question', 'q')];
    const check = checkSheet({
      columns: heads('id', 'Age', 'q'),
      settings: settingsOf(columns),
      seed: 1,
    });
    check.add(2, ['a', '#N/A', 'it is #1 to me']);
    check.add(3, ['b', '4', '#DIV/0!']);
    const { findings, questions } = check.settle();
    expect(findings).toMatchObject([{ code: 'error_values', rows: [2, 3] }]);
    expect(questions[0]).toMatchObject({ answered: 1 });
  });

  test('letters that were read wrongly before are told of with an example; Portuguese is not', () => {
    const check = checkSheet({
      columns: heads('q'),
      settings: settingsOf([setting('question', 'q')]),
      seed: 1,
    });
    ['O PÃO ESTÁ CARO', 'le cafÃ© est fermÃ©', 'itâ€™s late', 'São, maçã, über'].forEach(
      (cell, r) => check.add(r + 2, [cell]),
    );
    const told = check.settle().findings.filter(({ code }) => code === 'mojibake');
    expect(told).toMatchObject([{ rows: [3, 4], sentence: expect.stringContaining('cafÃ©') }]);
  });

  test('dates that can be read in two ways are told of, with an example of both', () => {
    const told = (dates: readonly string[], writing: '' | 'month_first' = '') => {
      const columns = [{ ...setting('date', 'Came'), writing }];
      const check = checkSheet({ columns: heads('Came'), settings: settingsOf(columns), seed: 1 });
      dates.forEach((cell, r) => check.add(r + 2, [cell]));
      return check.settle().findings.filter(({ about }) => about === 'Came');
    };
    expect(told(['03/04/2024', '5/5/2024'])).toMatchObject([
      { code: 'dates_in_two_ways', rows: [2], sentence: expect.stringContaining('2024-04-03') },
    ]);
    expect(told(['03/04/2024', '12/31/2024'], 'month_first')).toEqual([]);
    expect(told(['31.12.69', '1.2.2003'])).toMatchObject([{ code: 'two_digit_years', rows: [2] }]);
  });

  test('says with row numbers what it will do about everything else', () => {
    const outcome = check([
      ['', 'old', 'a', 'a\u0000b\u0007', ''],
      [],
      ['R2', '3', 'a', 'broken \uFFFD', ''],
      ['R3', '4', 'a', '=1+1'],
      ['R4', '-5', 'a', '-', '', 'surplus'],
      [],
    ]);
    const rowsOf = (code: string) => found(outcome, code)?.rows;
    expect(rowsOf('blank_id')).toEqual([2]);
    expect(rowsOf('unreadable_value')).toEqual([2]);
    expect(rowsOf('control_characters')).toEqual([2]);
    expect(rowsOf('unreadable_characters')).toEqual([4]);
    expect(rowsOf('blank_rows')).toEqual([3]);
    expect(rowsOf('dangerous_values')).toEqual([5]);
    expect(rowsOf('uneven_rows')).toEqual([5, 6]);
    expect(outcome.findings.every((one) => one.kind === 'notice')).toBe(true);
    expect(outcome.preview[0]).toMatchObject({
      row: 2,
      externalId: 'row 2',
      planned: { background: [null, 'a'], responses: [{ text: 'ab' }] },
    });
  });

  test.each<[string, ColumnSetting[], string[][], Partial<SheetSettings>]>([
    ['no_question', [setting('id')], [['1']], {}],
    [
      'several_ids',
      [setting('id'), setting('id'), setting('question', 'q')],
      [['1', '2', 'x']],
      {},
    ],
    ['no_rows', [setting('question', 'q')], [], {}],
    [
      'bad_weight',
      [setting('weight'), setting('question', 'q')],
      [
        ['-1', 'x'],
        ['', 'x'],
      ],
      {},
    ],
    ['codes_without_question', [setting('question', 'q'), setting('codes', 'z')], [['x', '1']], {}],
    [
      'name_twice',
      [setting('number', 'n'), setting('date', 'n'), setting('question', 'q')],
      [['1', '', 'x']],
      {},
    ],
    ['long_text', [setting('question', 'q')], [['x'.repeat(100_001)]], {}],
    ['long_id', [setting('id'), setting('question', 'q')], [['x'.repeat(201), 'x']], {}],
    ['no_details', [setting('id')], [['1']], { as: 'details' }],
    ['no_id', [setting('number', 'n')], [['1']], { as: 'details' }],
  ])('stops at %s', (code, given, rows, more) => {
    const run = checkSheet({
      columns: given.map((_, c) => ({ name: `c${c}`, code: '' })),
      settings: settingsOf(given, more),
      seed: 1,
    });
    for (const [r, row] of rows.entries()) run.add(r + 2, row);
    const stops = run.settle().findings.filter((one) => one.kind === 'stop');
    expect(stops.map((one) => one.code)).toEqual([code]);
  });

  test('previews the first rows and random others, each at most once', () => {
    const rows = Array.from({ length: 200 }, (_, i) => [String(i), '', '', 'x', '']);
    const { preview } = check(rows);
    expect(preview.slice(0, 5).map((one) => one.row)).toEqual([2, 3, 4, 5, 6]);
    expect(new Set(preview.map((one) => one.row)).size).toBe(10);
    expect(Math.max(...preview.map((one) => one.row))).toBeGreaterThan(100);
  });
});
