import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { splitLines } from './lines.js';

const linesOf = (text: string) => splitLines(text).map(({ start, end }) => text.slice(start, end));

describe('splitLines', () => {
  test('parts sentences, clauses after a semicolon, and line breaks', () => {
    expect(linesOf('The boat was late. Nobody told us; we froze!\nNever again')).toEqual([
      'The boat was late.',
      'Nobody told us;',
      'we froze!',
      'Never again',
    ]);
  });

  test('leaves abbreviations whole and a list marker with what it introduces', () => {
    expect(linesOf('Ask Dr. Moss about it. 1. Ramps 2. Seats')).toEqual([
      'Ask Dr. Moss about it.',
      '1. Ramps',
      '2. Seats',
    ]);
    expect(linesOf('1) Ramps\n2) Seats')).toEqual(['1) Ramps', '2) Seats']);
    expect(linesOf('We left at 7. Home by 9.')).toEqual(['We left at 7.', 'Home by 9.']);
  });

  test('parts languages that write no spaces (sentence boundaries of UAX #29)', () => {
    expect(linesOf('船が遅い。階段が怖い。')).toEqual(['船が遅い。', '階段が怖い。']);
  });

  test('a fragment of mere marks joins the line before it; emoji stand on their own', () => {
    expect(linesOf('Too dear. ...')).toEqual(['Too dear. ...']);
    expect(linesOf('Seals!\n🦭')).toEqual(['Seals!', '🦭']);
  });

  test('parts short texts of ASCII as it does all others', () => {
    const text = fc.string({
      unit: fc.constantFrom('a', 'B', '1', ' ', '.', '?', ';', '\n', '(', ')', '"', ','),
    });
    fc.assert(
      fc.property(text, (ascii) => {
        expect(splitLines(`${ascii}e`)).toEqual(splitLines(`${ascii}é`));
      }),
    );
  });

  test('lines are in order, do not overlap, and leave out nothing but white space', () => {
    const piece = fc.constantFrom(
      'a',
      'B. ',
      '; ',
      '\n',
      '  ',
      '! ',
      '1. ',
      '。',
      '🦭',
      'e.g. ',
      '\r\n',
      '?',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.array(piece).map((all) => all.join('')),
          fc.string(),
        ),
        (text) => {
          let at = 0;
          for (const { start, end } of splitLines(text)) {
            expect(text.slice(at, start).trim()).toBe('');
            expect(end).toBeGreaterThan(start);
            at = end;
          }
          expect(text.slice(at).trim()).toBe('');
        },
      ),
    );
  });
});
