import { expect, test } from '@jest/globals';
import { codesOf, groupOf, ledgerOf } from './cell.js';

const book = {
  themes: [{ id: 'money', name: 'Money' }],
  codes: [
    { id: 'fares', name: 'Fares', themeId: 'money' },
    { id: 'passes', name: 'Passes', themeId: 'money' },
    { id: 'boats', name: 'Boats', themeId: null },
  ],
  bundles: [{ id: 'both', name: 'Fares and boats', codeIds: ['fares', 'boats'] }],
};
const table = { question: 7, query: 'by=3', counts: 'decided' as const };
const mentioning = (codeIds: string[], themeIds: string[] = [], questionId: number | null = 7) => ({
  is: 'mentions',
  which: 'any',
  codeIds,
  themeIds,
  questionId,
});

test('a row stands for a code, for those of a theme, or for those of a bundle', () => {
  expect(codesOf('boats', book)).toEqual(['boats']);
  expect(codesOf('money', book)).toEqual(['fares', 'passes']);
  expect(codesOf('both', book)).toEqual(['fares', 'boats']);
});

test('the ledger is asked for the same answers', () => {
  const asked = (...cell: Parameters<typeof ledgerOf>) =>
    Object.fromEntries(new URLSearchParams(ledgerOf(...cell)));
  const ofMoney = { any: 'fares,passes', same: 'apart' };
  const money = { row: 'money', column: 'total' };
  expect(asked(money, book, 'decided')).toEqual(ofMoney);
  expect(asked(money, book, 'settled')).toEqual({ ...ofMoney, show: 'settled' });
  expect(asked(money, book, 'sample')).toEqual({ ...ofMoney, show: 'sample' });
  const inLine = { row: 'fares', column: 'total', with: 'boats', inOne: 'line' as const };
  expect(asked(inLine, book, 'decided')).toEqual({
    any: 'fares',
    all: 'boats',
    together: 'line',
    show: 'settled',
    same: 'apart',
  });
});

test('the group of a number says what the number counts', () => {
  const island = { is: 'value' as const, variableId: 3, test: 'any_of' as const, labels: ['Tye'] };
  const column = { label: 'Tye', rule: island };
  // a theme stays a theme: codes that it gets later belong to it
  expect(groupOf({ row: 'money', column: '=Tye' }, book, { ...table, column }, [])).toEqual({
    name: 'Mentions Money, Tye',
    description: '',
    rule: { is: 'all_of', rules: [mentioning([], ['money']), island] },
  });
  expect(groupOf({ row: 'fares', column: 'total', with: 'boats' }, book, table, [])).toMatchObject({
    name: 'Mentions Fares, Boats',
    rule: { rules: [mentioning(['fares']), mentioning(['boats'])] },
  });
  // of the question of its column, of any question where the table counts all
  const rulesOf = (column: string, query: string) =>
    groupOf({ row: 'boats', column }, book, { ...table, query }, [])!.rule;
  expect(rulesOf('question-9', 'by=questions')).toMatchObject({
    rules: [mentioning(['boats'], [], 9)],
  });
  expect(rulesOf('total', 'questions=all')).toMatchObject({
    rules: [mentioning(['boats'], [], null)],
  });
  // of lines, or of what was drawn, no rule knows
  const inLine = { row: 'fares', column: 'total', with: 'boats', inOne: 'line' as const };
  expect(groupOf(inLine, book, table, [])).toBeNull();
  const drawn = { ...table, counts: 'estimated' as const };
  expect(groupOf({ row: 'boats', column: 'total' }, book, drawn, [])).toBeNull();
});

test('a name that is taken gets the first free number, and stays as short as names may be', () => {
  const named = (taken: string[], name = 'Boats') =>
    groupOf(
      { row: 'boats', column: 'total' },
      { ...book, codes: [{ id: 'boats', name, themeId: null }] },
      table,
      taken,
    )!.name;
  expect(named(['mentions boats'])).toBe('Mentions Boats (2)');
  expect(named(['Mentions Boats', 'Mentions boats (2)'])).toBe('Mentions Boats (3)');
  const long = named([named([], 'b'.repeat(200))], 'b'.repeat(200));
  expect(long).toHaveLength(120);
  expect(long).toMatch(/b \(2\)$/u);
});
