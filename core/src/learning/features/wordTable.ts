/** Word embeddings: words of similar use have similar directions. */
export interface WordTable {
  /** Numbers in a vector. */
  size: number;
  /** Squared length of a text's mean embedding, beside 1 for its words and 1 for its character runs. */
  weight: number;
  rowOf: ReadonlyMap<string, number>;
  /** Adds a word's vector times a factor to a sum of vectors. */
  addTo(sum: Float64Array, row: number, times: number): void;
}

/**
 * Reads a table of word vectors: three numbers of four bytes (words, numbers a vector, bytes of the names), a scale
 * of four bytes a word, its numbers as signed bytes, and the words one a line as
 * UTF-16; all little-endian.
 *
 * @throws RangeError when the file ends too early
 */
export function readWordTable(file: Uint8Array): WordTable {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  const words = view.getUint32(0, true);
  const size = view.getUint32(4, true);
  const names = view.getUint32(8, true);
  const bytesAt = 12 + 4 * words;
  const namesAt = bytesAt + words * size;
  if (file.length !== namesAt + names)
    throw new RangeError('The table of word vectors is cut off.');
  const scales = Float32Array.from({ length: words }, (_, w) => view.getFloat32(12 + 4 * w, true));
  const bytes = new Int8Array(file.buffer, file.byteOffset + bytesAt, words * size);
  let lines = '';
  for (let at = namesAt; at < file.length; at += 2)
    lines += String.fromCharCode(view.getUint16(at, true));
  return {
    size,
    weight: 2,
    rowOf: new Map(lines.split('\n').map((word, row) => [word, row])),
    addTo(sum, row, times) {
      const scale = times * scales[row]!;
      for (let i = 0; i < size; i++) sum[i]! += scale * bytes[row * size + i]!;
    },
  };
}
