import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import wabt from 'wabt';
import { readEncoder } from './encoderFile.js';
import { packVector, unpackVector } from './packedVector.js';
import { TransformerEncoder } from './transformerEncoder.js';
import { encoderBinary } from './wasm/encoderBinary.js';

const read = (path: string) => readFileSync(new URL(path, import.meta.url));
/** By the published runtime: `madeWith` says how. */
const { sentences } = JSON.parse(String(read('../../test/checkValues/sentences.json'))) as {
  sentences: { text: string; pieces: number[]; vector: number[] }[];
};
const texts = sentences.map(({ text }) => text);

let encoder: TransformerEncoder;
let file: Uint8Array;
// made at set-up by scripts/words.sh
beforeAll(() => {
  file = read('../../../server/words/sentences.bin');
  encoder = new TransformerEncoder(readEncoder(file));
});

test('encoder.wat and its binary belong together', async () => {
  const assembler = await wabt();
  const text = String(read('./wasm/encoder.wat'));
  const { buffer } = assembler.parseWat('encoder.wat', text, { simd: true }).toBinary({});
  expect(encoderBinary).toBe(Buffer.from(buffer).toString('base64'));
});

test.each(sentences)('“$text” has the pieces and the vector of the published runtime', (one) => {
  expect([...encoder.piecesOf(one.text)]).toEqual(one.pieces);
  const [vector] = encoder.encode([one.text]);
  const off = one.vector.map((number, i) => Math.abs(number - vector![i]!));
  expect(Math.max(...off)).toBeLessThan(1e-4);
});

describe('a vector', () => {
  test('is the same to the last bit whatever is encoded beside it', () => {
    const alone = texts.map((text) => encoder.encode([text])[0]);
    expect(encoder.encode(texts)).toEqual(alone);
    expect(
      encoder
        .encode([...texts, ...texts].reverse())
        .slice(0, texts.length)
        .reverse(),
    ).toEqual(alone);
  });

  test('of a text of 30,000 characters is read in parts, and one of nothing is none', () => {
    const long = texts.join(' ').repeat(60).slice(0, 30_000);
    const [vector, nothing, blank] = encoder.encode([long, '', ' \n']);
    expect(Math.hypot(...vector!)).toBeCloseTo(1, 5);
    expect([nothing, blank]).toEqual([null, null]);
    // about the same things as its beginning
    const [beginning] = encoder.encode([long.slice(0, 500)]);
    const cosine = vector!.reduce((sum, one, i) => sum + one * beginning![i]!, 0);
    expect(cosine).toBeGreaterThan(0.6);
  });

  test('stands closer to one that means alike than to one that shares its words', () => {
    const [help, alike, other] = encoder.encode([
      'They were there for us.',
      'Somebody always helps',
      'They were there for an hour.',
    ]) as Float32Array[];
    const cosine = (one: Float32Array) => one.reduce((sum, n, i) => sum + n * help![i]!, 0);
    expect(cosine(alike!)).toBeGreaterThan(0.2);
    expect(cosine(other!)).toBeLessThan(1);
  });

  test('of eight bits is each number within half of its scale', () => {
    fc.assert(
      fc.property(
        fc.array(fc.float({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 64 }),
        (numbers) => {
          const vector = Float32Array.from(numbers);
          const packed = packVector(vector);
          const again = unpackVector(packed);
          const largest = Math.max(...numbers.map(Math.abs));
          expect(packed).toHaveLength(4 + numbers.length);
          vector.forEach((one, i) =>
            expect(Math.abs(one - again[i]!)).toBeLessThanOrEqual(largest / 254 + 1e-6),
          );
        },
      ),
    );
  });
});

test('a file that is cut off is refused', () => {
  expect(() => readEncoder(file.subarray(0, file.length - 8))).toThrow(RangeError);
});
