import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { duplicateKey } from './normalise.js';
import { splitWords } from './words.js';

const forms = (text: string) => splitWords(text).map((word) => word.form);

describe('splitWords', () => {
  test('keeps apostrophes inside words, numbers and accents, in lower case', () => {
    expect(forms('Couldn’t get 2 CARS on — naïve, ’twas!')).toEqual([
      "couldn't",
      'get',
      '2',
      'cars',
      'on',
      'naïve',
      'twas',
    ]);
  });

  test('parts scripts that write no spaces', () => {
    expect(forms('船が遅い').length).toBeGreaterThan(1);
    expect(forms('ตั๋วเรือแพงมาก').length).toBeGreaterThan(1);
  });

  test('parts texts of ASCII as it does all others', () => {
    const text = fc.string({ unit: fc.constantFrom('a', 'B', '1', "'", ' ', '.', '-') });
    fc.assert(
      fc.property(text, (ascii) => {
        expect(splitWords(`${ascii} é`).slice(0, -1)).toEqual(splitWords(ascii));
      }),
    );
  });

  test('says where each word stands', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        for (const { form, start, end } of splitWords(text))
          expect(text.slice(start, end).normalize('NFKC').toLowerCase().replaceAll('’', "'")).toBe(
            form,
          );
      }),
    );
  });
});

test('duplicates are equal after NFKC, case, white space and final punctuation', () => {
  const key = duplicateKey('The  steps!');
  for (const same of ['the steps', ' THE STEPS ...', 'the\nsteps?!', 'ｔｈｅ steps'])
    expect(duplicateKey(same)).toBe(key);
  expect(duplicateKey('the step')).not.toBe(key);
  expect(duplicateKey('the, steps')).not.toBe(key);
});
