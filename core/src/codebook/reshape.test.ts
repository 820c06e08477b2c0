import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkValue } from '../../test/checkValues.js';
import { mergeMentions, type PlacedMention } from './mergeMentions.js';
import { parseCodeName } from './parseCodeName.js';
import { placeBefore } from './placeBefore.js';
import { chao1, newCodesOf, saturationRuns } from './saturation.js';

describe('merging', () => {
  const mention = fc.record({
    responseId: fc.nat(3),
    coderId: fc.nat(1),
    start: fc.constantFrom(null, 0, 4),
    end: fc.constant<number | null>(null),
  });
  const named = (prefix: string) => (all: Omit<PlacedMention, 'id'>[]) =>
    all.map((one, i) => ({
      ...one,
      end: one.start === null ? null : one.start + 3,
      id: `${prefix}${i}`,
    }));

  test('keeps every place that was coded exactly once, and nobody’s place is lost', () => {
    fc.assert(
      fc.property(
        fc.array(mention).map(named('m')),
        fc.array(mention).map(named('s')),
        (moving, all) => {
          // what stands already stands at different places
          const standing = mergeMentions(all, []).moved;
          const { moved, double } = mergeMentions(moving, standing);
          const at = ({ responseId, coderId, start }: (typeof moving)[number]) =>
            `${responseId} ${coderId} ${start}`;
          const after = [...standing, ...moved].map(at);
          expect(new Set(after).size).toBe(after.length);
          expect(new Set(after)).toEqual(new Set([...standing, ...moving].map(at)));
          expect(moved.length + double.length).toBe(moving.length);
        },
      ),
    );
  });
});

test('a thing put before another stands just there, and all others keep their order', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 8 }), fc.nat(), fc.nat(), (count, a, b) => {
      const items = Array.from({ length: count }, (_, i) => ({ id: `${i}`, position: i + 1 }));
      const id = `${a % count}`;
      const before = b % (count + 1) === count ? null : `${b % (count + 1)}`;
      if (before === id) {
        expect(() => placeBefore(items, id, before)).toThrow(RangeError);
        return;
      }
      const moved = new Map(placeBefore(items, id, before).map((item) => [item.id, item]));
      const order = items
        .map((item) => moved.get(item.id) ?? item)
        .sort((x, y) => x.position - y.position)
        .map((item) => item.id);
      const others = items.map((item) => item.id).filter((one) => one !== id);
      expect(order.filter((one) => one !== id)).toEqual(others);
      expect(order[order.indexOf(id) + 1] ?? null).toBe(before);
    }),
  );
});

test('“theme / code” names both; a slash inside a word does not', () => {
  expect(parseCodeName(' Price / Car fares ')).toEqual({ theme: 'Price', code: 'Car fares' });
  expect(parseCodeName('in/out')).toEqual({ theme: null, code: 'in/out' });
  expect(parseCodeName('/ x')).toEqual({ theme: null, code: '/ x' });
});

describe('saturation', () => {
  interface Run {
    from: number;
    to: number;
    new: number;
    ratio: number;
  }
  const { input, expected } = checkValue<
    { new_themes_per_interview: number[]; coded_interviews: (string | string[])[] },
    {
      new_from_codes: number[];
      table: { base: number; run: number; sliding: { base_themes: number; runs: Run[] } }[];
    }
  >('9.1');

  test('new codes of each answer, and the ratio of every run (Guest, Namey & Chen 2020, by R)', () => {
    expect(newCodesOf(input.coded_interviews.map((codes) => [codes].flat()))).toEqual(
      expected.new_from_codes,
    );
    for (const { base, run, sliding } of expected.table) {
      const found = saturationRuns(input.new_themes_per_interview, base, run);
      expect(found.baseCodes).toBe(sliding.base_themes);
      expect(found.runs).toHaveLength(sliding.runs.length);
      for (const [i, { ratio, ...expectedRun }] of sliding.runs.entries()) {
        expect(found.runs[i]).toMatchObject(expectedRun);
        expect(found.runs[i]!.ratio).toBeCloseTo(ratio, 6);
      }
    }
    expect(saturationRuns([0, 0, 0, 0, 3, 1]).runs).toEqual([]);
  });

  test('codes not yet seen (Chao 1984, by R vegan::estimateR)', () => {
    const { input: mentions, expected: found } = checkValue<
      { mentions: Record<string, number[]>; BCI_row1_positive_counts: number[] },
      Record<string, { chao1_bias_corrected: number; se_chao1: number }>
    >('9.2');
    for (const [name, counts] of Object.entries({
      ...mentions.mentions,
      BCI_row1: mentions.BCI_row1_positive_counts,
    })) {
      const { estimate, error } = chao1([...counts, 0]);
      expect(estimate).toBeCloseTo(found[name]!.chao1_bias_corrected, 6);
      expect(error).toBeCloseTo(found[name]!.se_chao1, 5);
    }
  });
});
