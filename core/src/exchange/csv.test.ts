import { expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { withoutTextMark, writeCsv } from './csv.js';

test('what is written reads back the same (RFC 4180, by an independent parser)', () => {
  const cell = fc.oneof(
    fc.string(),
    fc.constantFrom('a,b', '"', 'x\r\ny', '', 'é🦭', '=1+1', "'=1", "''@x", '-', "'a"),
  );
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { minLength: 2, maxLength: 2 }), { minLength: 1 }),
      (rows) => {
        const read: unknown = parse(writeCsv(rows), {
          relaxColumnCount: true,
          recordDelimiter: '\r\n',
        });
        expect((read as string[][]).map((row) => row.map(withoutTextMark))).toEqual(rows);
        const plain: unknown = parse(writeCsv(rows, 'programs'), {
          relaxColumnCount: true,
          recordDelimiter: '\r\n',
        });
        expect(plain).toEqual(rows);
      },
    ),
  );
});

test('a text that a spreadsheet would run as a formula is disarmed, numbers are not touched', () => {
  const row = ['=1+1', '+44', '-', -3, null, '@x', "'=1"];
  expect(writeCsv([row])).toBe(`'=1+1,'+44,-,-3,,'@x,''=1\r\n`);
  expect(writeCsv([row], 'programs')).toBe(`=1+1,+44,-,-3,,@x,'=1\r\n`);
});
