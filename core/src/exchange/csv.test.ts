import { expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { writeCsv } from './csv.js';

test('what is written reads back the same (RFC 4180, by an independent parser)', () => {
  const cell = fc.oneof(fc.string(), fc.constantFrom('a,b', '"', 'x\r\ny', '', 'é🦭'));
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { minLength: 2, maxLength: 2 }), { minLength: 1 }),
      (rows) => {
        const read: unknown = parse(writeCsv(rows), {
          relaxColumnCount: true,
          recordDelimiter: '\r\n',
        });
        const unarmed = (text: string) => (/^[=+\-@\t\r\n]./su.test(text) ? `'${text}` : text);
        expect(read).toEqual(rows.map((row) => row.map(unarmed)));
      },
    ),
  );
});

test('a text that a spreadsheet would run as a formula is disarmed, numbers are not touched', () => {
  expect(writeCsv([['=1+1', '+44', '-', -3, null, '@x']])).toBe(`'=1+1,'+44,-,-3,,'@x\r\n`);
});
