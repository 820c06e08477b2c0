import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { FEWEST_SPOKEN, readToneLexicon, scoreTone, toneShares, type SpokenOf } from './index.js';

const lexicon = readToneLexicon(
  readFileSync(createRequire(import.meta.url).resolve('vader-sentiment/vader_lexicon.txt'), 'utf8'),
);
const figuresOf = (text: string) => {
  const { positive, neutral, negative, compound } = scoreTone(text, lexicon);
  return [negative, neutral, positive]
    .map((one) => Number(one.toFixed(3)))
    .concat(Number(compound.toFixed(4)));
};

// negative, neutral, positive, compound by nltk 3.8 with the same lexicon (check value 7.2)
test.each<[string, number[]]>([
  ['The staff were friendly and helpful.', [0, 0.4, 0.6, 0.7184]],
  ['The delivery was terrible and the box was damaged.', [0.462, 0.538, 0, -0.7184]],
  ['The service was not good.', [0.376, 0.624, 0, -0.3412]],
  ['I don’t hate it, but I would not recommend it.', [0.25, 0.563, 0.187, -0.1695]],
  ['GREAT price!!!', [0, 0.149, 0.851, 0.7723]],
  ['The food was good, but the service was awful.', [0.309, 0.541, 0.151, -0.4678]],
  ['It arrived on Tuesday.', [0, 1, 0, 0]],
  ['Oh great, another delay. Just what I needed.', [0.202, 0.439, 0.36, 0.4215]],
  ['Very happy with the extremely fast delivery :)', [0, 0.453, 0.547, 0.8051]],
  ['Never had a problem.', [0, 0.47, 0.53, 0.3089]],
  ['Not bad at all.', [0, 0.513, 0.487, 0.431]],
  ['Wow, only three hours on hold, fantastic job.', [0, 0.448, 0.552, 0.8126]],
])('%s', (text, expected) => expect(figuresOf(text)).toEqual(expected));

// worked examples of the authors' own program (Hutto & Gilbert 2014, its README), from memory
test.each<[string, number[]]>([
  ['VADER is smart, handsome, and funny.', [0, 0.254, 0.746, 0.8316]],
  ['VADER is very smart, handsome, and funny.', [0, 0.299, 0.701, 0.8545]],
  ['VADER is VERY SMART, handsome, and FUNNY!!!', [0, 0.233, 0.767, 0.9342]],
  ['VADER is VERY SMART, uber handsome, and FRIGGIN FUNNY!!!', [0, 0.294, 0.706, 0.9469]],
  ['VADER is not smart, handsome, nor funny.', [0.646, 0.354, 0, -0.7424]],
  ["At least it isn't a horrible book.", [0, 0.637, 0.363, 0.431]],
  ['The book was only kind of good.', [0, 0.697, 0.303, 0.3832]],
  [
    'The plot was good, but the characters are uncompelling and the dialog is not great.',
    [0.327, 0.579, 0.094, -0.7042],
  ],
  ["Today only kinda sux! But I'll get by, lol", [0.127, 0.556, 0.317, 0.5249]],
  ['Make sure you :) or :D today!', [0, 0.294, 0.706, 0.8633]],
])('%s', (text, expected) => expect(figuresOf(text)).toEqual(expected));

test('a line is positive, negative, mixed or neither, and the words that say so are told', () => {
  const toneOf = (text: string) => scoreTone(text, lexicon).tone;
  expect(
    [
      'lovely crew',
      'awful food',
      'lovely crew, awful food',
      'on Tuesday',
      '',
      'constructor of __proto__',
    ].map(toneOf),
  ).toEqual(['positive', 'negative', 'mixed', 'none', 'none', 'none']);
  const text = 'It is not “good”, the crew we do love!';
  expect(
    scoreTone(text, lexicon).words.map(({ start, end, rating }) => [
      text.slice(start, end),
      Math.sign(rating),
    ]),
  ).toEqual([
    ['good', -1],
    ['love', 1],
  ]);
  // irony is not seen, and what is bad only here neither
  expect(toneOf('Oh great, three hours in the queue')).toBe('positive');
});

test('whatever is written: shares make up a whole, strength lies between 0 and 1, words stand in the text', () => {
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string({ unit: 'grapheme' }),
        fc
          .array(
            fc.constantFrom(
              'not',
              'very',
              'good',
              'BAD',
              'but',
              'no',
              'kind of',
              '!',
              '??',
              'boat',
            ),
          )
          .map((words) => words.join(' ')),
      ),
      (text) => {
        const { positive, negative, neutral, compound, strength, words } = scoreTone(text, lexicon);
        expect(positive + negative + neutral).toBeCloseTo(1, 9);
        expect(Math.abs(compound)).toBeLessThanOrEqual(1);
        expect(strength >= 0 && strength <= 1).toBe(true);
        for (const { start, end } of words) expect(text.slice(start, end)).not.toMatch(/^\s|\s$/u);
      },
    ),
  );
});

test('nothing is said of a tone before enough of a random sample were read, whatever the models say', () => {
  const spoken = fc.array(
    fc.record({
      lines: fc.uniqueArray(fc.nat(19), { minLength: 1, maxLength: 3 }),
      isSampled: fc.boolean(),
      weight: fc.constant(1),
    }),
    { maxLength: 40 },
  );
  const marks = fc
    .array(fc.nat(1), { minLength: 20, maxLength: 20 })
    .map((all) => Uint8Array.from(all));
  const likely = fc.option(
    fc
      .array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 20, maxLength: 20 })
      .map((all) => Float32Array.from(all)),
  );
  fc.assert(
    fc.property(
      spoken,
      marks,
      marks,
      likely,
      likely,
      (all, isPositive, isNegative, positive, negative) => {
        const material = { isPositive, isNegative, positive, negative };
        const found = toneShares(all, material);
        const sampled = all.filter(({ isSampled }) => isSampled).length;
        expect([found.people, found.sampled]).toEqual([all.length, sampled]);
        for (const share of [found.positive, found.negative]) {
          if (sampled < FEWEST_SPOKEN) expect(share).toBeNull();
          else {
            const [low, high] = share!.estimate?.interval ?? share!.sampleInterval;
            const value = share!.estimate?.value ?? share!.sampleShare;
            expect(low >= 0 && low <= value && value <= high && high <= 1).toBe(true);
          }
        }
        // what nobody read says nothing by itself
        const unread = all.map((one) => ({ ...one, isSampled: false }));
        expect(toneShares(unread, material)).toMatchObject({ positive: null, negative: null });
      },
    ),
  );
});

test('a person speaks negatively of a theme with one negative line of it; by the sample alone, and with models', () => {
  const spoken = Array.from({ length: 40 }, (_, i): SpokenOf => ({
    lines: i % 2 === 0 ? [i] : [i, 40 + i],
    isSampled: i < 20,
    weight: 1,
  }));
  const isNegative = new Uint8Array(80);
  // of the odd ones, whose second line is negative
  for (let i = 1; i < 40; i += 2) isNegative[40 + i] = 1;
  const blank = new Uint8Array(80);
  const alone = toneShares(spoken, {
    isPositive: blank,
    isNegative,
    positive: null,
    negative: null,
  });
  expect(alone.negative).toMatchObject({ sampleShare: 0.5, estimate: null, mentioned: 10 });
  const negative = Float32Array.from(isNegative, (one) => (one ? 0.95 : 0.02));
  const helped = toneShares(spoken, { isPositive: blank, isNegative, positive: null, negative });
  expect(helped.negative!.estimate!.value).toBeCloseTo(0.5, 6);
  const width = ([low, high]: readonly [number, number]) => high - low;
  expect(width(helped.negative!.estimate!.interval)).toBeLessThan(
    width(helped.negative!.sampleInterval),
  );
});
