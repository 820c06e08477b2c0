import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { replaceCodes, type CodedTwice } from './replaceCodes.js';
import { coderNames } from './readingCoders.js';

const code = fc.constantFrom<string>('a', 'b', 'c', 'd', 'e');
const answer: fc.Arbitrary<CodedTwice> = fc.record({
  firstCodes: fc.uniqueArray(code),
  secondCodes: fc.option(fc.uniqueArray(code)),
  verdicts: fc.dictionary(code, fc.boolean()),
});

test('codes that are merged count as one, in what two people said and in what was decided', () => {
  fc.assert(
    fc.property(answer, fc.uniqueArray(code, { minLength: 1 }), (given, merged) => {
      const by = merged[0]!;
      const after = replaceCodes(given, merged, by);
      const means = (codes: readonly string[], one: string) =>
        one === by ? merged.some((each) => codes.includes(each)) : codes.includes(one);
      for (const one of ['a', 'b', 'c', 'd', 'e']) {
        const isGone = merged.includes(one) && one !== by;
        expect(after.firstCodes.includes(one)).toBe(!isGone && means(given.firstCodes, one));
        if (given.secondCodes)
          expect(after.secondCodes!.includes(one)).toBe(!isGone && means(given.secondCodes, one));
        const said = (one === by ? merged : [one]).flatMap((each) => given.verdicts[each] ?? []);
        expect(after.verdicts[one]).toBe(
          isGone || said.length === 0 ? undefined : said.some((applies) => applies),
        );
      }
      expect(new Set(after.firstCodes).size).toBe(after.firstCodes.length);
      expect(replaceCodes(after, merged, by)).toEqual(after);
    }),
  );
});

test('one who codes the same answers again is called first and second time', () => {
  expect(coderNames({ reader: 'Ada', firstCoders: ['Ada'] })).toEqual({
    first: 'first time',
    second: 'second time',
  });
  expect(coderNames({ reader: 'Ada', firstCoders: ['Ada', 'Wren', 'Fern'] })).toEqual({
    first: 'Ada, Wren and Fern',
    second: 'Ada',
  });
});
