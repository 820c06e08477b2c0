import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bytesOf, PART_SIZE, partWriter, sourceOf } from './source.js';

/** Bytes that hold their own position. */
const bytes = (size: number) =>
  Uint8Array.from({ length: size }, (_, i) => (i * 7 + (i >> 8)) % 251);

test('a file comes out of its parts as it went in, whatever the pieces and the stretch asked for', async () => {
  const size = fc.constantFrom(
    0,
    1,
    1000,
    PART_SIZE - 1,
    PART_SIZE,
    PART_SIZE + 1,
    2 * PART_SIZE + 7,
  );
  await fc.assert(
    fc.asyncProperty(
      size,
      fc.integer({ min: 1, max: 2 * PART_SIZE }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      async (length, piece, one, other) => {
        const content = bytes(length);
        const parts: Uint8Array[] = [];
        const writer = partWriter((part) => {
          parts.push(part);
          return Promise.resolve();
        });
        for (let at = 0; at < length; at += piece)
          await writer.add(content.subarray(at, at + piece));
        expect(await writer.end()).toBe(length);
        expect(parts.slice(0, -1).every((part) => part.length === PART_SIZE)).toBe(true);

        const [start, end] = [one, other]
          .map((share) => Math.floor(share * length))
          .sort((x, y) => x - y);
        const read: Uint8Array[] = [];
        const source = { size: length, part: (index: number) => Promise.resolve(parts[index]!) };
        for await (const stretch of bytesOf(source, start, end)) read.push(stretch);
        expect(Buffer.compare(Buffer.concat(read), content.subarray(start, end))).toBe(0);
      },
    ),
    { numRuns: 40 },
  );
  await expect(
    bytesOf(sourceOf(bytes(5)), 0, 9)
      .next()
      .then(() => bytesOf(sourceOf(bytes(0)), 0, 9).next()),
  ).rejects.toThrow('missing');
});
