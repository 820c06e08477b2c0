import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { splitLines } from '../text/index.js';
import { medianPace, waysToFinish, type Left } from './finish.js';
import { lineOfEvidence } from './lineOfEvidence.js';

test('a pace is the median of the steps between what was done, without pauses and single strokes', () => {
  const at = (...seconds: number[]) => seconds.map((second) => 1000 * second);
  // steps of 2, 4, 4, 9 and 10; then an hour, and two in one stroke
  expect(medianPace(at(0, 2, 6, 10, 19, 29, 3629, 3629))).toBe(4);
  expect(medianPace(at(0, 2, 6, 10))).toBeNull();
  fc.assert(
    fc.property(fc.array(fc.nat(1e7)), (times) => {
      const pace = medianPace(times);
      expect(medianPace(times.toReversed())).toBe(pace);
      if (pace !== null) expect(pace >= 0.2 && pace <= 120).toBe(true);
    }),
  );
});

const left: Left = {
  openWordings: 300,
  suggestions: 400,
  unsureSuggestions: 60,
  withoutModel: 2,
  hasModels: true,
  canEstimate: true,
  check: 50,
  pace: { answer: null, decision: null },
};

test('reading the rest comes first where it takes less than an hour, and estimates otherwise', () => {
  const [first] = waysToFinish(left);
  expect(first).toEqual({ way: 'read', work: 300, seconds: 2400, isOpen: true });
  expect(waysToFinish({ ...left, pace: { answer: 13, decision: 3 } })[0]!.way).toBe('estimates');
  const codes = waysToFinish(left).find(({ way }) => way === 'codes');
  expect(codes).toMatchObject({ work: 60, seconds: 180 });
  const untrained = waysToFinish({ ...left, hasModels: false, canEstimate: false });
  expect(untrained.filter(({ isOpen }) => isOpen).map(({ way }) => way)).toEqual(['hand']);
});

test('a suggestion rests on the line whose words are the strongest evidence for it', () => {
  const text = 'The crew were kind. Fares are far too dear for us. The boat was late.';
  const lines = splitLines(text);
  const evidence = [
    { word: 'dear', weight: 2 },
    { word: 'fares', weight: 1 },
    { word: 'late', weight: 2.5 },
  ];
  expect(lineOfEvidence(text, lines, evidence)).toBe(1);
  expect(lineOfEvidence(text, lines, [{ word: 'price', weight: 3 }])).toBeNull();
  expect(lineOfEvidence('Fares.', splitLines('Fares.'), evidence)).toBeNull();
});
