import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { guessRoles } from './guessRoles.js';
import { findHead } from './heads.js';
import { matchIds } from './matchIds.js';
import { matchNames } from './matchNames.js';
import { isNoAnswer, NO_ANSWERS, noAnswerKeys } from './noAnswer.js';
import { profileColumns } from './profile.js';
import { parseDate, parseNumber, parseYesNo, writingsFor } from './values.js';

test('reads numbers, dates (ISO 8601, day first) and yes or no as people write them', () => {
  expect(['12', '-0.5', '3,14', ' 7 ', '1e3'].map((cell) => parseNumber(cell))).toEqual([
    12, -0.5, 3.14, 7, 1000,
  ]);
  expect(
    ['', 'x', '1 00', '12a', '1.2.3', '12 34', '(a)', '5 people'].map((cell) => parseNumber(cell)),
  ).toEqual(Array(8).fill(null));
  expect(
    ['62.3%', '£1,234.50', '12,50 €', '1 000', "1'234.5", '(12.50)', 'CHF 3', '−4'].map((cell) =>
      parseNumber(cell),
    ),
  ).toEqual([62.3, 1234.5, 12.5, 1000, 1234.5, -12.5, 3, -4]);
  expect(
    ['2024/12/31', '9 Mar 2024', 'March 9, 2024', '31.12.69', '31/12/68'].map((cell) =>
      parseDate(cell),
    ),
  ).toEqual(['2024-12-31', '2024-03-09', '2024-03-09', '1969-12-31', '2068-12-31']);
  expect(parseDate('2024-03-09 10:00:00 +0200')).toBe('2024-03-09');
  expect(
    ['2026-03-09', '2026-03-09T10:00', '9.3.2026', '31/12/2026'].map((cell) => parseDate(cell)),
  ).toEqual(['2026-03-09', '2026-03-09', '2026-03-09', '2026-12-31']);
  expect(['2026-02-30', '31/13/2026', '9 Marble 2024'].map((cell) => parseDate(cell))).toEqual([
    null,
    null,
    null,
  ]);
  expect(['Yes', ' ja ', '0', 'maybe'].map(parseYesNo)).toEqual([true, true, false, null]);
});

// how people of a country write is taken from Unicode's CLDR, which Intl has
test('reads numbers and dates as they are written in a country, when told how', () => {
  const number = fc.integer({ min: -(10 ** 12), max: 10 ** 12 }).map((n) => n / 1000);
  const day = fc.date({ min: new Date(0), max: new Date('2099-12-31'), noInvalidDate: true });
  fc.assert(
    fc.property(number, day, (n, date) => {
      const written = (country: string) => n.toLocaleString(country, { maximumFractionDigits: 3 });
      expect(parseNumber(written('en-US'), 'comma_groups')).toBe(n);
      expect(parseNumber(written('de-DE'), 'point_groups')).toBe(n);
      const dated = (country: string, more: Intl.DateTimeFormatOptions = {}) =>
        date.toLocaleString(country, { timeZone: 'UTC', dateStyle: 'short', ...more });
      const iso = date.toISOString().slice(0, 10);
      const full = {
        year: 'numeric',
        month: '2-digit',
        day: '2-digit',
        dateStyle: undefined,
      } as const;
      const timed = { ...full, hour: '2-digit', minute: '2-digit' } as const;
      expect(parseDate(dated('en-US', timed), 'month_first')).toBe(iso);
      for (const country of ['en-GB', 'de-DE', 'nl-NL', 'pt-BR'])
        expect([country, parseDate(dated(country, full))]).toEqual([country, iso]);
      for (const country of [
        'en-US',
        'en-GB',
        'de',
        'fr',
        'es',
        'it',
        'nl',
        'pt',
        'sv',
        'da',
        'pl',
      ])
        for (const month of ['long', 'short'] as const) {
          const named = dated(country, {
            dateStyle: undefined,
            day: 'numeric',
            month,
            year: 'numeric',
          });
          expect([named, parseDate(named)]).toEqual([named, iso]);
        }
      // thousands by space or apostrophe, and with money and percent signs
      for (const country of ['de-CH', 'fr-FR', 'sv-SE', 'pl-PL'])
        expect([country, parseNumber(written(country))]).toEqual([country, n]);
      const money = (country: string, currency: string) =>
        n.toLocaleString(country, {
          style: 'currency',
          currency,
          currencySign: 'accounting',
          minimumFractionDigits: 3,
          maximumFractionDigits: 3,
        });
      expect([money('en-GB', 'GBP'), parseNumber(money('en-GB', 'GBP'), 'comma_groups')]).toEqual([
        money('en-GB', 'GBP'),
        n,
      ]);
      expect([money('de-DE', 'EUR'), parseNumber(money('de-DE', 'EUR'), 'point_groups')]).toEqual([
        money('de-DE', 'EUR'),
        n,
      ]);
    }),
  );
  expect(writingsFor('number', ['45,000', 'n/a'])).toEqual(['', 'comma_groups']);
  expect(writingsFor('number', ['0.555', '1.154'])).toEqual(['']);
  expect(writingsFor('date', ['3/9/2026'])).toEqual(['', 'month_first']);
  expect(writingsFor('date', ['3/9/2026', '2/13/2026'])).toEqual(['month_first']);
  // one that is misspelt does not decide for the others
  expect(writingsFor('date', ['3/9/2026', '2/13/2026', '4/14/2026', '14/4/2026'])).toEqual([
    'month_first',
  ]);
  expect(parseNumber('45,00', 'comma_groups')).toBeNull();
  expect(parseDate('2/13/2026')).toBeNull();
});

test('what says nothing is no answer, in several languages; "nothing" is an answer', () => {
  const keys = noAnswerKeys(NO_ANSWERS);
  for (const blank of ['', '  ', 'n/a', 'N/A.', '-', '...', 'No comment', 'keine Angabe', 'n.v.t.'])
    expect([blank, isNoAnswer(blank, keys)]).toEqual([blank, true]);
  for (const said of ['Nothing', 'none', 'no', 'more boats', '👍', '船'])
    expect([said, isNoAnswer(said, keys)]).toEqual([said, false]);
});

describe('findHead', () => {
  const columnsOf = (...rows: string[][]) => findHead(rows)!.columns.map((one) => one.name);

  test('passes over titles and blank rows, names blank columns, tells equal ones apart', () => {
    const head = findHead([[], ['Passenger survey'], ['id', 'a', '', 'a'], ['1', 'x', 'y', 'z']])!;
    expect([head.row, head.rows]).toEqual([3, 1]);
    expect(head.columns.map((one) => one.name)).toEqual(['id', 'a', 'Column 3', 'a (2)']);
    expect(findHead([[], ['', ' ']])).toBeNull();
  });

  test('joins a head of code and wording, as survey services export it', () => {
    const head = findHead([
      ['RespID', 'Q1', 'Q2', 'Q3'],
      ['Respondent', 'How old are you?', 'What would you change?', 'Do you have a car?'],
      ['R1', '34', 'More boats', 'yes'],
      ['R2', '71', 'Fewer steps', 'no'],
    ])!;
    expect(head.rows).toBe(2);
    expect(head.columns[2]).toEqual({ code: 'Q2', name: 'What would you change?' });
  });

  test('takes a cell merged over several columns for each of them', () => {
    expect(
      columnsOf(
        ['id', 'Which of these do you use?', '', 'Why?'],
        ['', 'Bus', 'Boat', ''],
        ['1', '1', '0', 'It is quick'],
        ['2', '0', '1', 'It is dry'],
      ),
    ).toEqual([
      'id',
      'Which of these do you use?: Bus',
      'Which of these do you use?: Boat',
      'Why?',
    ]);
  });

  test('takes a row that is filled under merged cells only for the second of the head', () => {
    const upper = ['id', 'Age', 'Home', 'Why?', 'Which do you use?', '', '', 'Else'];
    const rows = [
      ['1', '34', 'Tye', 'It is quick', '1', '0', '0', 'no'],
      ['2', '51', 'Tye', 'It is dry', '0', '1', '0', 'no'],
    ];
    expect(findHead([upper, ['', '', '', '', 'Bus', 'Boat', 'Car', ''], ...rows])!.rows).toBe(2);
    // a respondent who said nothing else
    expect(findHead([upper, ['', '', '', '', '1', '0', '1', ''], ...rows])!.rows).toBe(1);
    expect(findHead([upper, ['0', '', '', '', 'Bus', 'Boat', 'Car', ''], ...rows])!.rows).toBe(1);
  });

  test.each([
    [
      ['id', 'Why?', 'Home'],
      ['R1', 'Because the boat is late', 'Tye'],
      ['R2', 'It is quick', 'Tye'],
      ['R3', 'It is dry', 'Hask'],
    ],
    // one-word heads above a wordy first answer are no codes
    [
      ['id', 'home', 'Other home (please specify)', 'Why?'],
      ['R0', 'Tye', '', 'the boat was late, and nobody told us'],
      ['R1', 'Hask', '', 'it was cold'],
      ['R2', 'Other', 'a boat', 'it was wet'],
    ],
    // nor are numbered ones, when the row below looks like the rows after it
    [
      ['nr', 'Q1', 'Q2'],
      ['R0', 'more boats', 'the crew is kind'],
      ['R1', 'more boats', 'the view from the deck'],
      ['R2', 'more seats', 'the view from the deck'],
    ],
  ])('never takes the first respondent for a second head', (...rows) => {
    expect(findHead(rows)!.rows).toBe(1);
  });
});

const guess = (names: string[], ...rows: string[][]) => {
  const profiler = profileColumns(names);
  for (const row of rows) profiler.add(row);
  return guessRoles(profiler.profiles());
};

test('guesses roles from names and values, and says why', () => {
  const guesses = guess(
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
  );
  expect(guesses.map((one) => one.role)).toEqual([
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

test('guesses tick boxes, several choices, personal data and what belongs to "other"', () => {
  const homes = ['Tye', 'Hask', 'Tye', 'Other', 'Hask', 'Tye'];
  const guesses = guess(
    ['id', 'Home', 'Other, please specify', 'Bus', 'Uses', 'E-mail', 'Phone', 'First name'],
    ...homes.map((home, i) => [
      String(i),
      home,
      home === 'Other' ? 'A lighthouse' : '',
      i % 2 ? 'Bus' : '',
      ['boat; bus', 'boat', 'bus; car', 'car', 'boat', 'bus; boat'][i]!,
      `person${i}@example.org`,
      `+44 20 7946 01${i}${i}`,
      ['Ada', 'Bo', 'Cy', 'Di', 'Ed', 'Flo'][i]!,
    ]),
  );
  expect(guesses.map((one) => one.role)).toEqual([
    'id',
    'category',
    'question',
    'ticked',
    'choices',
    'leave_out',
    'leave_out',
    'leave_out',
  ]);
  expect(guesses[2]).toMatchObject({ of: 'Home', name: 'Home: Other, please specify' });
  expect(guesses[4]).toMatchObject({ separator: ';' });
  expect(guesses[5]!.reason).toBe('it looks like e-mail addresses');
});

test('takes as the id a word that nobody shares among many, and no unshared number', () => {
  const rows = [...'abcdefghijklmnopqrstuvwxy'].map((letter, i) => [
    `${letter}ka`,
    (0.5 + i / 100).toFixed(2),
    `so it is with ${letter} here`,
  ]);
  expect(guess(['Nickname', 'Share', 'Why?'], ...rows).map((one) => one.role)).toEqual([
    'id',
    'number',
    'question',
  ]);
});

test('tells how numbers and dates are written by the whole column', () => {
  const column = (name: string, ...values: string[]) => {
    const [only] = guess([name], ...values.map((value) => [value]));
    return [only!.role, only!.writing, only!.reason];
  };
  expect(column('Income', '45,000', '45,000', '1,250,000', '900')).toEqual([
    'number',
    'comma_groups',
    'all values are numbers, with a comma between thousands',
  ]);
  expect(column('Income', '45.000', '45.000', '1.250.000', '900,50')[1]).toBe('point_groups');
  // decimals with three digits, as they are in weights
  expect(column('Share', '0,125', '1,250', '1,250')[1]).toBe('');
  expect(column('Share', '0.125', '1.250', '1.250')[1]).toBe('');
  expect(column('Came', '3/9/2026', '3/9/2026', '12/31/2026').slice(0, 2)).toEqual([
    'date',
    'month_first',
  ]);
  expect(column('Came', '3/9/2026', '3/9/2026 14:05', '31/12/2026')).toEqual([
    'date',
    '',
    'all values are dates, read with the day first',
  ]);
  // no words: nothing to be coded
  expect(column('How long?', '01:25:00', '00:18:00', '02:02:00', '02:02:00')[0]).toBe('category');
});

test('a few rows that came twice leave an id what it is', () => {
  const rows = Array.from({ length: 60 }, (_, i) => [`P-${i === 9 ? 8 : i}`, String(i % 50)]);
  const [id, age] = guess(['Patient', 'Age'], ...rows);
  expect([id!.role, id!.reason, age!.role]).toEqual(['id', '98.3% of the values differ', 'number']);
});

test('"other, please specify" is tied to the closed question next to it that has an "other"', () => {
  const rows = ['fall', 'Other', 'fall', 'fever', 'Other', 'fever'].map((reason, i) => [
    ['red', 'green'][i % 2]!,
    reason === 'Other' ? `a bee stung me ${i}` : '',
    reason,
  ]);
  const guesses = guess(['Triage', 'Other reason, please specify', 'Reason'], ...rows);
  expect(guesses[1]).toMatchObject({ role: 'question', of: 'Reason' });
});

test('ties columns to what the study has by the same or nearly the same name', () => {
  const heads = ['home ', 'What would you chang?', 'Age'];
  const guesses = guess(heads, ['Tye', 'More boats please now', '3']);
  const matched = matchNames(
    guesses.map((one, c) => ({ ...one, head: heads[c]! })),
    {
      variables: [{ name: 'Home', kind: 'category' }],
      questions: ['What would you change?'],
    },
  );
  expect(matched.map(({ role, name }) => [role, name])).toEqual([
    ['category', 'Home'],
    ['question', 'What would you change?'],
    ['number', 'Age'],
  ]);
  expect(matched[1]!.reason).toBe('matched with “What would you change?” of the study');
});

test('a column that was imported before is what it was then, while the study has it', () => {
  const heads = ['Nr', 'Person', 'Phone?', 'Home', 'Age', 'Why'];
  const setting = {
    role: 'category' as const,
    name: '',
    of: '',
    separator: '',
    writing: '' as const,
  };
  const before = new Map(
    [
      { ...setting, role: 'id' as const },
      { ...setting, role: 'leave_out' as const },
      { ...setting, name: 'Island' },
      { ...setting, role: 'number' as const, name: 'Years', writing: 'comma_groups' as const },
      { ...setting, role: 'question' as const, name: 'Why not?' },
    ].map((one, c) => [heads[c + 1]!, { setting: one, fileName: 'spring.csv' }]),
  );
  const guesses = guess(
    heads,
    ['1', 'a1', '7', 'Tye', '34', 'no'],
    ['2', 'a2', '8', 'Tye', '34', 'no'],
  );
  const matched = matchNames(
    guesses.map((one, c) => ({ ...one, head: heads[c]! })),
    // “Island” has another name by now
    { variables: [{ name: 'Years', kind: 'number' }], questions: ['Why not?'], before },
  );
  expect(matched.map(({ role, name }) => [role, name])).toEqual([
    ['category', 'Nr'],
    ['id', ''],
    ['leave_out', ''],
    ['category', 'Home'],
    ['number', 'Years'],
    ['question', 'Why not?'],
  ]);
  expect(matched[4]).toMatchObject({ writing: 'comma_groups', reason: 'as in “spring.csv”' });
});

test('proposes ids that are written differently, and none that fits several', () => {
  expect(
    matchIds(
      ['ab-17 ', '0042', 'r1003', 'K-77', 'x1', 'row9'],
      ['AB-17', '42', 'R1O03', 'K-78', 'K-79', 'x2', 'other'],
    ),
  ).toEqual([
    { from: 'ab-17 ', to: 'AB-17', why: 'case or white space' },
    { from: '0042', to: '42', why: 'zeros or punctuation' },
    { from: 'r1003', to: 'R1O03', why: 'one character' },
  ]);
});

test('American dates are dates, not telephone numbers; those that can be read in one way decide', () => {
  const dates = Array.from({ length: 120 }, (_, i) => `0${1 + (i % 9)}/${10 + (i % 19)}/2024`);
  const guessOf = (values: readonly string[]) =>
    guess(['Visited'], ...values.map((value) => [value]))[0]!;
  expect(guessOf(dates)).toMatchObject({ role: 'date', writing: 'month_first' });
  // a date that no calendar has is reported, and does not change the column's kind
  expect(guessOf([...dates, '02/30/2024'])).toMatchObject({ role: 'date', writing: 'month_first' });
  expect(guessOf(dates.map((_, i) => `0${1 + (i % 9)}/0${1 + (i % 8)}/24`))).toMatchObject({
    role: 'date',
    writing: '',
  });
  expect(guessOf(dates.map((_, i) => `+44 20 7946 0${100 + i}`))).toMatchObject({
    role: 'leave_out',
  });
});
