import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { drawnToNeighbours } from './neighbourhood.js';
import { NO_SENTENCES, type SentenceBlock } from './sentenceBlock.js';

const SIZE = 8;
const dot = (x: Float32Array, y: Float32Array) => x.reduce((sum, one, d) => sum + one * y[d]!, 0);

/** Texts by name, each with a vector of length √2. */
function blockOf(vectors: readonly (readonly number[])[]): {
  block: SentenceBlock;
  texts: string[];
} {
  const texts = vectors.map((_, i) => `text ${i}`);
  const scaled = vectors.map((vector) => {
    const length = Math.hypot(...vector) || 1;
    return Float32Array.from(vector, (one) => (Math.SQRT2 * one) / length);
  });
  return { texts, block: { size: SIZE, of: (text) => scaled[texts.indexOf(text)] ?? null } };
}

test('each vector is drawn towards its own kind and stays as long as it was; what is not read stays so', () => {
  const number = fc.integer({ min: -20, max: 20 });
  const noise = fc.array(number, { minLength: SIZE, maxLength: SIZE });
  fc.assert(
    fc.property(fc.array(noise, { minLength: 8, maxLength: 40 }), (noises) => {
      // of two kinds, apart along the first direction
      const { block, texts } = blockOf(
        noises.map((one, i) => [i % 2 === 0 ? 60 : -60, ...one.slice(1)]),
      );
      const drawn = drawnToNeighbours(block, texts);
      expect(drawn.of('never read')).toBeNull();
      for (const [i, text] of texts.entries()) {
        const before = block.of(text)!;
        const after = drawn.of(text)!;
        expect(Math.hypot(...after)).toBeCloseTo(Math.SQRT2, 4);
        expect(Math.sign(after[0]!)).toBe(i % 2 === 0 ? 1 : -1);
        expect(dot(after, before)).toBeGreaterThan(0);
        expect(drawn.of(text)).toEqual(after);
      }
    }),
  );
});

test('a text between two kinds goes to where its nearest are', () => {
  const kind = (first: number) =>
    Array.from({ length: 12 }, (_, i) => [first, 1, i / 12, 0, 0, 0, 0, 0]);
  const between = [0.3, 1, 0, 0.2, 0, 0, 0, 0];
  const { block, texts } = blockOf([...kind(2), ...kind(-2), between]);
  const before = block.of(texts.at(-1)!)!;
  const after = drawnToNeighbours(block, texts).of(texts.at(-1)!)!;
  expect(after[0]!).toBeGreaterThan(before[0]!);
  expect(drawnToNeighbours(NO_SENTENCES, texts).of(texts[0]!)).toBeNull();
});
