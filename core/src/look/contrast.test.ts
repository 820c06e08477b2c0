import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { hitTester } from '../text/index.js';
import { contrastTerms } from './contrast.js';
import { readTerms } from './readTerms.js';

const NOTHING = { question: '', setAside: [] };

test('what a group says more than all others, by people: three of them are no finding', () => {
  const answers = [
    ...Array.from({ length: 20 }, (_, i) => `${i} winter sailings`),
    ...Array.from({ length: 3 }, () => 'puffins'),
    ...Array.from({ length: 40 }, (_, i) => `dear fares ${i % 2 ? 'today' : ''}`),
    'winter is dear',
  ];
  const inGroup = Uint8Array.from(answers, (_, a) => (a < 23 ? 1 : 0));
  const { group, rest, more, less } = contrastTerms(readTerms(answers), inGroup, NOTHING, 20);
  expect([group, rest]).toEqual([23, 41]);
  expect(more.map(({ term, group: its, rest: others }) => [term, its, others])).toEqual(
    expect.arrayContaining([
      ['winter', 20, 1],
      ['winter sailings', 20, 0],
    ]),
  );
  expect(more.map(({ term }) => term)).not.toContain('puffins');
  expect(less[0]).toMatchObject({ group: 0 });
  const winter = more.find(({ term }) => term === 'winter')!;
  expect(winter.logRatio).toBeCloseTo(Math.log2(20 / 23 / (1 / 41)), 12);
  // set aside, a word is not compared, and no phrase with it
  const without = contrastTerms(
    readTerms(answers),
    inGroup,
    { question: 'Winters?', setAside: ['sailing'] },
    20,
  );
  expect(without.more).toEqual([]);
});

test('what is told of a term is what a search finds on either side', () => {
  const word = fc.constantFrom('boat', 'boats', 'late', 'later', 'fare', 'fares');
  const answer = fc.array(word, { minLength: 1, maxLength: 5 }).map((words) => words.join(' '));
  fc.assert(
    fc.property(
      fc.array(fc.tuple(answer, fc.boolean()), { minLength: 10, maxLength: 40 }),
      (said) => {
        const answers = said.map(([text]) => text);
        const inGroup = Uint8Array.from(said, ([, is]) => Number(is));
        const { more, less } = contrastTerms(readTerms(answers), inGroup, NOTHING, 50);
        for (const { term, group, rest } of [...more, ...less]) {
          const holds = hitTester(term, 'stem');
          expect(said.filter(([text, is]) => is && holds(text)).length).toBe(group);
          expect(said.filter(([text, is]) => !is && holds(text)).length).toBe(rest);
        }
      },
    ),
  );
});
