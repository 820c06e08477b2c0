import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { codesOfNearest, weighLikely } from './codesOfNearest.js';

test('the codes of like answers speak by how like they are; of unlike ones not at all', () => {
  const coded = [
    { text: 'the fares are too high', codeIds: ['fares'] },
    { text: 'fares too high in summer', codeIds: ['fares', 'season'] },
    { text: 'steep steps at the slip', codeIds: ['steps'] },
    { text: 'the slip has steps', codeIds: ['steps'] },
  ];
  const near = codesOfNearest('fares far too high', coded);
  expect(near.get('fares')).toBeCloseTo(1, 12);
  expect(near.get('season')).toBeGreaterThan(0);
  expect(near.get('season')).toBeLessThan(0.6);
  expect(near.has('steps')).toBe(false);
  expect(codesOfNearest('puffins', coded)).toEqual(new Map());
  expect(codesOfNearest('fares', [])).toEqual(new Map());
});

test('for ranking the models’ word goes before that of the nearest, which counts half', () => {
  const suggested = [{ codeId: 'a', probability: 0.3 }];
  const near = [
    { codeId: 'a', share: 1 },
    { codeId: 'b', share: 0.8 },
  ];
  expect(Object.fromEntries(weighLikely(suggested, near))).toEqual({ a: 0.3, b: 0.4 });
});

test('shares lie between none and all, whatever the answers; the same words have the same codes', () => {
  const words = fc.array(fc.constantFrom('fares', 'boats', 'steps', 'crew', 'late'), {
    maxLength: 5,
  });
  const answer = fc.record({
    text: words.map((some) => some.join(' ')),
    codeIds: fc.uniqueArray(fc.constantFrom('a', 'b', 'c'), { minLength: 1 }),
  });
  fc.assert(
    fc.property(fc.array(answer, { maxLength: 12 }), words, (coded, some) => {
      const text = some.join(' ');
      for (const share of codesOfNearest(text, coded).values()) {
        expect(share).toBeGreaterThan(0);
        expect(share).toBeLessThanOrEqual(1 + 1e-12);
      }
      const [twin] = coded;
      if (!twin?.text) return;
      const near = codesOfNearest(twin.text, [...coded, twin]);
      for (const codeId of twin.codeIds) expect(near.get(codeId)).toBeGreaterThan(0);
    }),
  );
});
