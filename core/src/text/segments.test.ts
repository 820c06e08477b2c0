import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { segmentsOf } from './segments.js';

const pieces = fc.constantFrom(
  'Dr. ',
  'The boat was late. ',
  'Why? ',
  '“No!” she said. ',
  '3.5 miles ',
  '\n',
  '… ',
  'a.b ',
  'สวัสดีครับ',
  '我们的船晚点了。',
  'e\u0301',
  '👩‍👩‍👧‍👦 ',
  'word '.repeat(300),
  'ש"ל ',
);
const texts = fc.array(pieces, { maxLength: 60 }).map((all) => all.join(''));

test.each(['sentence', 'word'] as const)(
  'a text given stretch by stretch has the %ss that it has as a whole (UAX #29)',
  (granularity) => {
    const segmenter = new Intl.Segmenter('en', { granularity });
    fc.assert(
      fc.property(texts, (text) => {
        const whole = [...segmenter.segment(text)].map(({ index }) => index);
        const joined = [...segmentsOf(segmenter, text)].map(({ index }) => index);
        expect(joined).toEqual(whole);
      }),
    );
  },
);

test('all of a text is in its segments, also where it has no boundary', () => {
  const segmenter = new Intl.Segmenter('en', { granularity: 'word' });
  const endless = 'e'.repeat(50_000);
  const found = [...segmentsOf(segmenter, endless)].map(({ segment }) => segment);
  expect(found.join('')).toBe(endless);
  expect(found.length).toBeLessThan(5);
});
