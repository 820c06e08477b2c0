import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addTo, emptyBitset, has, type Bitset } from './bitset.js';
import { assignCategories, labelsByRule, type ByRule } from './assignCategories.js';

const SIZE = 40;
const anySet = fc.uniqueArray(fc.integer({ min: 0, max: SIZE - 1 })).map((members): Bitset => {
  const set = emptyBitset(SIZE);
  for (const i of members) addTo(set, i);
  return set;
});
const labels = fc.constantFrom('a', 'b', 'c');
const deal = fc.record({
  rules: fc.array(fc.record({ label: labels, members: anySet }), { maxLength: 5 }),
  inSeveral: fc.option(fc.constantFrom('several', 'a')),
  inNone: fc.option(fc.constantFrom('none', 'b')),
});

test('everybody is in one category at most, and there by the rules', () => {
  fc.assert(
    fc.property(deal, ({ rules, inSeveral, inNone }) => {
      const by: ByRule = { rules, inSeveral, inNone };
      const assigned = assignCategories(
        by,
        rules.map(({ members }) => members),
        SIZE,
      );
      expect([...assigned.keys()]).toEqual(labelsByRule(by));
      for (let i = 0; i < SIZE; i++) {
        // in the order of the categories, which is not that of the rules where labels come back
        const picking = labelsByRule({ rules, inSeveral: null, inNone: null }).filter((label) =>
          rules.some((rule) => rule.label === label && has(rule.members, i)),
        );
        const expected =
          picking.length === 0
            ? inNone
            : picking.length > 1
              ? (inSeveral ?? picking[0])
              : picking[0];
        const found = [...assigned]
          .filter(([, members]) => has(members, i))
          .map(([label]) => label);
        expect(found).toEqual(expected === null ? [] : [expected]);
      }
    }),
  );
});
