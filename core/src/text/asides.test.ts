import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blankAsides, findAsides } from './asides.js';

const marks = { brackets: ['[]', '()'], leading: ['INT:', 'Probe'] };

test('finds what stands in brackets and on lines that begin with a mark', () => {
  const text = 'Boats.\nint: Anything else? (pause)\nMore [laughs] boats (in [the] evening) [open';
  expect(findAsides(text, marks).map(({ start, end }) => text.slice(start, end))).toEqual([
    'int: Anything else? (pause)',
    '[laughs]',
    '(in [the] evening)',
  ]);
  expect(findAsides(text, { brackets: [], leading: [] })).toEqual([]);
});

test('blanking keeps the length, and everything that is no aside in its place', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom('a', ' ', '[', ']', '(', ')', '\n', 'INT:', '🦭')),
      (all) => {
        const text = all.join('');
        const blanked = blankAsides(text, marks);
        expect(blanked).toHaveLength(text.length);
        const asides = findAsides(text, marks);
        for (let i = 0; i < text.length; i++)
          if (!asides.some(({ start, end }) => start <= i && i < end))
            expect(blanked[i]).toBe(text[i]);
      },
    ),
  );
});
