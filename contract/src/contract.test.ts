import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  codeEditSchema,
  idSchema,
  ledgerQuery,
  pageQuery,
  mentionCreateSchema,
  nameSchema,
  proseSchema,
  reportQuery,
  ruleSchema,
  suggestionQuery,
} from './index.js';

const uuid = '11111111-1111-4111-8111-111111111111';

describe('what a request may hold', () => {
  test('a passage has a start before its end, or neither', () => {
    const fits = (start: unknown, end: unknown) =>
      mentionCreateSchema.safeParse({ id: uuid, responseId: 1, codeId: uuid, start, end }).success;
    expect([fits(0, 5), fits(null, null)]).toEqual([true, true]);
    expect([
      fits(5, 5),
      fits(6, 5),
      fits(null, 5),
      fits(0, null),
      fits(-1, 5),
      fits(0.5, 2),
    ]).toEqual(Array(6).fill(false));
  });

  test('names are trimmed, one line long and not blank; prose may have lines', () => {
    expect(nameSchema.parse('  Late boats ')).toBe('Late boats');
    for (const bad of ['', '   ', 'x'.repeat(121), 'a\u0000b', 'a\u001Bb', '\uDC00', 'a\nb'])
      expect(nameSchema.safeParse(bad).success).toBe(false);
    expect(proseSchema.parse('one\n\ttwo 🦭')).toBe('one\n\ttwo 🦭');
    expect(proseSchema.safeParse('x'.repeat(4001)).success).toBe(false);
  });

  test('every text without control characters is kept as it is', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 100 }), (text) => {
        expect(proseSchema.parse(text)).toBe(text);
      }),
    );
  });

  test('an edit says what it began from', () => {
    expect(codeEditSchema.safeParse({ to: { name: 'New' } }).success).toBe(false);
    expect(codeEditSchema.safeParse({ from: { name: 'Old' }, to: { name: 'New' } }).success).toBe(
      true,
    );
  });

  test('addresses: numbers from text, sensible defaults, nothing out of range', () => {
    expect(pageQuery.parse({})).toEqual({ limit: 100 });
    expect(pageQuery.parse({ after: '7', limit: '500' })).toEqual({ after: 7, limit: 500 });
    for (const bad of [{ limit: '501' }, { limit: '0' }, { after: 'x' }])
      expect(pageQuery.safeParse(bad).success).toBe(false);
    const code = 'c0de0000-0000-4000-8000-000000000000';
    expect(
      ledgerQuery.parse({ all: `${code},${code}`, where: ['12:Tye: north', '13:'], coder: '4' }),
    ).toMatchObject({
      show: 'all',
      words: '',
      order: 'imported',
      same: 'joined',
      together: 'answer',
      all: [code, code],
      any: [],
      none: [],
      coder: 4,
      where: [
        { variableId: 12, value: 'Tye: north' },
        { variableId: 13, value: '' },
      ],
    });
    for (const bad of [{ show: 'some' }, { all: 'x' }, { where: 'home' }, { seed: '-1' }])
      expect(ledgerQuery.safeParse(bad).success).toBe(false);
    expect(reportQuery.parse({ by: '12', weighted: 'true' })).toMatchObject({
      by: '12',
      empty: 'shown',
      weighted: true,
      test: 'holm',
      level: '95',
      against: 'each',
      rows: 'book',
      order: 'frequency',
      groups: [],
      chosen: [],
    });
    for (const by of ['none', 'groups', 'wave', '12,13'])
      expect(reportQuery.parse({ by }).by).toBe(by);
    for (const bad of [{ by: '1,2,3' }, { by: 'home' }, { difference: '1' }, { group: 'x' }])
      expect(reportQuery.safeParse(bad).success).toBe(false);
    expect(reportQuery.safeParse({ by: 'home' }).success).toBe(false);
    for (const bad of ['0', '-1', '1.5', '2147483648', 'x'])
      expect(idSchema.safeParse(bad).success).toBe(false);
  });

  test('every page key that a probability and an id make is accepted', () => {
    const probability = fc.double({ min: 0.05, max: 1, noNaN: true });
    fc.assert(
      fc.property(probability, fc.integer({ min: 1, max: 999_999_999 }), (p, id) => {
        expect(suggestionQuery.safeParse({ after: `${p}:${id}` }).success).toBe(true);
      }),
    );
  });
});

test('a rule may hold rules to any depth, and nothing else', () => {
  const leaf = { is: 'stated', variableId: 3, stated: true };
  const rule = {
    is: 'any_of',
    rules: [leaf, { is: 'none_of', rules: [{ is: 'all_of', rules: [leaf] }] }],
  };
  expect(ruleSchema.parse(rule)).toEqual(rule);
  for (const bad of [
    { is: 'all_of' },
    { is: 'some_of', rules: [] },
    { is: 'all_of', rules: [{ ...leaf, stated: 'yes' }] },
    { is: 'range', variableId: 3, from: 'yesterday', to: null },
    { is: 'in_group', groupId: 'x', member: true },
  ])
    expect(ruleSchema.safeParse(bad).success).toBe(false);
});
