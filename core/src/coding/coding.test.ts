import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyTableDiff,
  isEmptyRecordsDiff,
  reverseRecordsDiff,
  type TableDiff,
} from './recordsDiff.js';
import { extendByWord } from './extendByWord.js';
import { lineOfPassage, splitAtPassages } from './segments.js';

interface Note {
  id: string;
  text: string;
}
const keyOf = (note: Note) => note.id;
const sorted = (notes: Note[]) => notes.toSorted((x, y) => x.id.localeCompare(y.id));

test('a change and its reverse leave everything as it was', () => {
  const note = fc.record({
    text: fc.string(),
    fate: fc.constantFrom('kept', 'updated', 'removed', 'added'),
  });
  fc.assert(
    fc.property(fc.array(note), fc.string(), (notes, newText) => {
      const withFate = (fate: string) =>
        notes.flatMap((one, i) => (one.fate === fate ? [{ id: String(i), text: one.text }] : []));
      const before = ['kept', 'updated', 'removed'].flatMap(withFate);
      const diff: TableDiff<Note> = {
        added: withFate('added'),
        updated: withFate('updated').map((from) => ({ from, to: { ...from, text: newText } })),
        removed: withFate('removed'),
      };
      const after = applyTableDiff(before, diff, keyOf);
      expect(after.length).toBe(before.length + diff.added.length - diff.removed.length);
      const back = reverseRecordsDiff<{ note: Note }>({ note: diff }).note;
      expect(sorted(applyTableDiff(after, back, keyOf))).toEqual(sorted(before));
      const nothing = diff.added.length + diff.updated.length + diff.removed.length === 0;
      expect(isEmptyRecordsDiff<{ note: Note }>({ note: diff })).toBe(nothing);
    }),
  );
});

describe('splitAtPassages', () => {
  test('fills the line exactly, and knows which passages lie over each part', () => {
    const span = fc.tuple(fc.nat(40), fc.nat(40)).filter(([x, y]) => x !== y);
    fc.assert(
      fc.property(span, fc.array(span), ([from, to], pairs) => {
        const line = { start: Math.min(from, to), end: Math.max(from, to) };
        const passages = pairs.map(([x, y]) => ({ start: Math.min(x, y), end: Math.max(x, y) }));
        const segments = splitAtPassages(line, passages);
        expect(segments[0]!.start).toBe(line.start);
        expect(segments.at(-1)!.end).toBe(line.end);
        segments.forEach((segment, i) => {
          expect(segment.end).toBe(segments[i + 1]?.start ?? line.end);
          for (let at = segment.start; at < segment.end; at++)
            for (const passage of passages)
              expect(segment.passages.includes(passage)).toBe(
                passage.start <= at && at < passage.end,
              );
        });
      }),
    );
  });

  test('a passage belongs to the line that it begins in', () => {
    const lines = [
      { start: 0, end: 10 },
      { start: 11, end: 20 },
    ];
    expect(lineOfPassage(lines, { start: 8, end: 15 })).toBe(0);
    expect(lineOfPassage(lines, { start: 11, end: 15 })).toBe(1);
    expect(lineOfPassage(lines, null)).toBe(-1);
  });
});

describe('extendByWord', () => {
  const text = 'Late. So are the steps, always! And cold';
  const line = { start: 6, end: 31 };
  const marked = (passage: { start: number; end: number } | null) =>
    passage && text.slice(passage.start, passage.end);

  test('grows word by word, into the next line too, to the end of the answer and no further', () => {
    let passage = extendByWord(text, line, null, 1);
    expect(marked(passage)).toBe('So');
    for (const grown of ['So are', 'So are the', 'So are the steps', 'So are the steps, always']) {
      passage = extendByWord(text, line, passage, 1);
      expect(marked(passage)).toBe(grown);
    }
    for (let n = 0; n < 3; n++) passage = extendByWord(text, line, passage, 1);
    expect(marked(passage)).toBe('So are the steps, always! And cold');
  });

  test('both ends move', () => {
    let passage = extendByWord(text, line, null, -1, 'start');
    expect(marked(passage)).toBe('always');
    for (const grown of ['steps, always', 'the steps, always', 'are the steps, always']) {
      passage = extendByWord(text, line, passage, -1, 'start');
      expect(marked(passage)).toBe(grown);
    }
    passage = extendByWord(text, line, extendByWord(text, line, passage, -1), 1, 'start');
    expect(marked(passage)).toBe('the steps');
  });

  test('what was grown at either end is given back in the same steps', () => {
    fc.assert(
      fc.property(fc.nat(8), fc.constantFrom('start' as const, 'end' as const), (steps, moved) => {
        const out = moved === 'end' ? 1 : -1;
        const back = moved === 'end' ? -1 : 1;
        const way = [extendByWord(text, line, null, out, moved)];
        for (let n = 0; n < steps; n++) {
          const next = extendByWord(text, line, way.at(-1)!, out, moved);
          if (next![moved] === way.at(-1)![moved]) break;
          way.push(next);
        }
        for (const before of [null, ...way].reverse().slice(1))
          expect(extendByWord(text, line, way.pop()!, back, moved)).toEqual(before);
      }),
    );
  });
});
