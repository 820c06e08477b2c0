import { readWordTable } from '../src/learning/features/wordTable.js';

/** A table of four words: boat and ship point the same way. */
export function tinyTable() {
  const words = ['boat', 'ship', 'fare', 'crew'];
  const vectors = [
    [100, 10],
    [98, 14],
    [-50, 90],
    [0, -120],
  ];
  const names = words.join('\n');
  const file = new Uint8Array(12 + 4 * 4 + 8 + 2 * names.length);
  const view = new DataView(file.buffer);
  [4, 2, 2 * names.length].forEach((value, i) => view.setUint32(4 * i, value, true));
  words.forEach((_, w) => view.setFloat32(12 + 4 * w, 0.01, true));
  vectors.flat().forEach((value, i) => view.setInt8(28 + i, value));
  [...names].forEach((c, i) => view.setUint16(36 + 2 * i, c.charCodeAt(0), true));
  return { file, table: readWordTable(file) };
}
