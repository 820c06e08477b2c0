import type { Piece } from './subwords.js';

/** A matrix as `multiply` in `encoder.wat` takes it: whole numbers, eight columns together, and a scale a column. */
export interface PackedMatrix {
  inner: number;
  columns: number;
  wholes: Int16Array;
  scales: Float32Array;
}

/** A matrix of numbers row by row. */
export interface PlainMatrix {
  inner: number;
  columns: number;
  numbers: Float32Array;
}

/** What an affine map, or a normalisation to mean 0 and variance 1, does to each number afterwards. */
export interface Affine {
  scale: Float32Array;
  shift: Float32Array;
}

/** One layer of a transformer, normalised before each of its two parts. */
export interface EncoderLayer<Matrix> {
  heads: number;
  attentionNorm: Affine;
  /** Queries, keys and values side by side. */
  attention: Biased<Matrix>;
  attended: Biased<Matrix>;
  forwardNorm: Affine;
  inward: Biased<Matrix>;
  outward: Biased<Matrix>;
}

export interface Biased<Matrix> {
  matrix: Matrix;
  bias: Float32Array;
}

/** A sentence encoder's vocabulary and weights. */
export interface EncoderWeights<Matrix = PackedMatrix, Table = EmbeddingTable> {
  name: string;
  version: string;
  languages: string[];
  /** Pieces that are read at once; a longer text is read in parts. */
  longest: number;
  pieces: Piece[];
  embeddings: Table;
  /** Frequencies of the sines and cosines that tell a piece's position. */
  frequencies: Float32Array;
  /** Widens what the first layer adds to. */
  widening: Biased<Matrix>;
  layers: EncoderLayer<Matrix>[];
  /** From the mean over the pieces to the vector, through the hyperbolic tangent. */
  output: Biased<Matrix>;
}

/** A vector a piece: whole numbers with a scale each. */
export interface EmbeddingTable {
  size: number;
  wholes: Int16Array;
  scales: Float32Array;
}

/** Largest whole number of a weight. With those of the rows of 16 bits, both are rounded about as finely. */
const LARGEST_WEIGHT = 16_383;
const LARGEST_EMBEDDING = 32_767;
const PANEL = 8;

/** Rounds a matrix to whole numbers, a scale a column, and puts eight columns together. */
export function packMatrix({ inner, columns, numbers }: PlainMatrix): PackedMatrix {
  const wholes = new Int16Array(inner * columns);
  const scales = new Float32Array(columns);
  for (let column = 0; column < columns; column++) {
    let largest = 0;
    for (let i = 0; i < inner; i++)
      largest = Math.max(largest, Math.abs(numbers[i * columns + column]!));
    const scale = Math.fround(largest / LARGEST_WEIGHT);
    scales[column] = scale;
    const panel = Math.floor(column / PANEL) * PANEL * inner;
    for (let i = 0; i < inner; i++) {
      const at = panel + (i >> 1) * 2 * PANEL + (column % PANEL) * 2 + (i & 1);
      wholes[at] = scale === 0 ? 0 : Math.round(numbers[i * columns + column]! / scale);
    }
  }
  return { inner, columns, wholes, scales };
}

/** Rounds rows of `size` numbers to whole numbers, a scale a row. */
export function packEmbeddings(numbers: Float32Array, size: number): EmbeddingTable {
  const scales = new Float32Array(numbers.length / size);
  const wholes = new Int16Array(numbers.length);
  scales.forEach((_, row) => {
    const from = numbers.subarray(row * size, (row + 1) * size);
    const largest = from.reduce((most, one) => Math.max(most, Math.abs(one)), 0);
    const scale = Math.fround(largest / LARGEST_EMBEDDING);
    scales[row] = scale;
    from.forEach((one, i) => (wholes[row * size + i] = scale === 0 ? 0 : Math.round(one / scale)));
  });
  return { size, wholes, scales };
}

type Numbers = Float32Array | Int16Array;
/** Where an array stands in the file, in its place in the weights. */
interface ArrayPlace {
  type: 'f32' | 'i16';
  /** Bytes after the head. */
  at: number;
  length: number;
}

/**
 * An encoder as a file: four bytes for the length of its head, the head as JSON with the place of each array, and the
 * arrays, each from a multiple of four bytes on; little-endian.
 */
export function writeEncoder(weights: EncoderWeights): Uint8Array {
  const arrays: Numbers[] = [];
  let used = 0;
  const head = JSON.stringify(weights, (_, value: unknown) => {
    if (!(value instanceof Float32Array || value instanceof Int16Array)) return value;
    const place: ArrayPlace = {
      type: value instanceof Float32Array ? 'f32' : 'i16',
      at: used,
      length: value.length,
    };
    arrays.push(value);
    used = roundUp(used + value.byteLength);
    return place;
  });
  const headBytes = new TextEncoder().encode(head);
  const begin = roundUp(4 + headBytes.length);
  const file = new Uint8Array(begin + used);
  new DataView(file.buffer).setUint32(0, headBytes.length, true);
  file.set(headBytes, 4);
  let at = begin;
  for (const array of arrays) {
    file.set(new Uint8Array(array.buffer, array.byteOffset, array.byteLength), at);
    at = roundUp(at + array.byteLength);
  }
  return file;
}

/** What an encoder's file says of it, without its weights. */
export const encoderHead = (
  file: Uint8Array,
): Pick<EncoderWeights, 'name' | 'version' | 'languages'> =>
  JSON.parse(headOf(file)) as EncoderWeights;

function headOf(file: Uint8Array): string {
  const length = new DataView(file.buffer, file.byteOffset, file.byteLength).getUint32(0, true);
  return new TextDecoder().decode(file.subarray(4, 4 + length));
}

/**
 * @throws RangeError when the file ends too early
 * @throws SyntaxError when it is no such file
 */
export function readEncoder(file: Uint8Array): EncoderWeights {
  const length = new DataView(file.buffer, file.byteOffset, file.byteLength).getUint32(0, true);
  const begin = file.byteOffset + roundUp(4 + length);
  return JSON.parse(headOf(file), (_, value: unknown) => {
    if (!isPlace(value)) return value;
    // copied: the file may begin at any byte
    const bytes = value.length * (value.type === 'f32' ? 4 : 2);
    const from = begin + value.at - file.byteOffset;
    if (from + bytes > file.length) throw new RangeError('The file of the encoder is cut off.');
    const { buffer } = new Uint8Array(file.subarray(from, from + bytes));
    return value.type === 'f32' ? new Float32Array(buffer) : new Int16Array(buffer);
  }) as EncoderWeights;
}

const isPlace = (value: unknown): value is ArrayPlace =>
  typeof value === 'object' && value !== null && 'type' in value && 'at' in value;

const roundUp = (bytes: number): number => Math.ceil(bytes / 4) * 4;
