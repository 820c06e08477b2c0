import type { Affine, Biased, EncoderLayer, EncoderWeights, PackedMatrix } from './encoderFile.js';
import type { SentenceEncoder } from './sentenceEncoder.js';
import { SubwordSplitter } from './subwords.js';
import {
  allocateProducts,
  encoderMemory,
  multiplyRows,
  storeMatrix,
  type ProductPlaces,
  type StoredMatrix,
} from './wasm/encoderMemory.js';

/** Pieces of texts that go through the layers together: the weights are then fetched from memory once for all. */
const PIECES_AT_ONCE = 256;
const NORM_EPSILON = 1e-6;

interface Layer {
  weights: EncoderLayer<PackedMatrix>;
  attention: StoredMatrix;
  attended: StoredMatrix;
  inward: StoredMatrix;
  outward: StoredMatrix;
}

/** Pieces of several texts, one text after the other: text t has pieces start[t] … start[t + 1] − 1. */
interface Batch {
  start: number[];
  pieces: Int32Array;
}

/**
 * A transformer that reads sentences: pieces of words with their positions through layers of attention, the mean over
 * the pieces, and a last layer. A text with more pieces than it reads at once is read in parts, whose vectors are
 * averaged by their pieces.
 *
 * @see Vaswani et al. (2017) Attention is all you need; Cer et al. (2018) Universal sentence encoder
 */
export class TransformerEncoder implements SentenceEncoder {
  readonly name: string;
  readonly version: string;
  readonly languages: readonly string[];
  readonly size: number;
  private readonly weights: EncoderWeights;
  private readonly splitter: SubwordSplitter;
  private readonly memory = encoderMemory();
  private readonly widening: StoredMatrix;
  private readonly layers: Layer[];
  private readonly output: StoredMatrix;
  /** By position and number: sines, then cosines. */
  private readonly positions: Float32Array;
  // in memory: what products take and give, the sum over the layers, and how much pieces matter to each other
  private readonly at: ProductPlaces;
  private readonly sum: number;
  private readonly scores: number;

  constructor(weights: EncoderWeights) {
    this.weights = weights;
    ({ name: this.name, version: this.version, languages: this.languages } = weights);
    this.size = weights.output.matrix.columns;
    this.splitter = new SubwordSplitter(weights.pieces);
    this.widening = this.load(weights.widening);
    this.layers = weights.layers.map((layer) => ({
      weights: layer,
      attention: this.load(layer.attention),
      attended: this.load(layer.attended),
      inward: this.load(layer.inward),
      outward: this.load(layer.outward),
    }));
    this.output = this.load(weights.output);
    const products = [this.widening, this.output, ...this.layers.flatMap(productsOf)];
    const widest = Math.max(...products.flatMap(({ inner, columns }) => [inner, columns]));
    const rows = PIECES_AT_ONCE + weights.longest;
    this.at = allocateProducts(this.memory, rows, widest);
    this.sum = this.memory.allocate(4 * rows * this.widening.columns);
    this.scores = this.memory.allocate(4 * weights.longest ** 2);
    this.positions = positionsOf(weights);
  }

  /** Numbers of the pieces that a text is read as. */
  piecesOf(text: string): Int32Array {
    return this.splitter.split(text);
  }

  encode(texts: readonly string[]): (Float32Array | null)[] {
    const { longest } = this.weights;
    const parts = texts.flatMap((text, of) => {
      const pieces = text.trim() === '' ? new Int32Array() : this.piecesOf(text);
      return Array.from({ length: Math.ceil(pieces.length / longest) }, (_, part) => ({
        of,
        pieces: pieces.subarray(part * longest, (part + 1) * longest),
      }));
    });
    const sums = texts.map((): Float32Array | null => null);
    let first = 0;
    while (first < parts.length) {
      let end = first;
      for (let pieces = 0; end < parts.length && pieces < PIECES_AT_ONCE; end++)
        pieces += parts[end]!.pieces.length;
      const batch = parts.slice(first, end);
      const vectors = this.encodeBatch(batch.map(({ pieces }) => pieces));
      batch.forEach(({ of, pieces }, i) => {
        const sum = (sums[of] ??= new Float32Array(this.size));
        for (let d = 0; d < this.size; d++) sum[d]! += pieces.length * vectors[i * this.size + d]!;
      });
      first = end;
    }
    return sums.map((sum) => sum && scaledToLengthOne(sum));
  }

  private load({ matrix, bias }: Biased<PackedMatrix>): StoredMatrix {
    return storeMatrix(this.memory, matrix, bias);
  }

  /** @returns a vector of length 1 for each part, one after the other */
  private encodeBatch(parts: readonly Int32Array[]): Float32Array {
    const batch = batchOf(parts);
    const rows = batch.pieces.length;
    const narrow = this.widening.inner;
    const wide = this.widening.columns;
    const embedded = this.embed(batch);
    const sum = this.memory.floats32(this.sum, rows * wide);
    this.memory.floats32(this.at.input, rows * narrow).set(embedded);
    this.multiply(this.widening, rows);
    sum.set(this.memory.floats32(this.at.result, rows * wide));
    this.layers.forEach((layer, l) => {
      if (l === 0) this.normalise(embedded, narrow, layer.weights.attentionNorm);
      else this.normalise(sum, wide, layer.weights.attentionNorm);
      this.multiply(layer.attention, rows);
      this.attend(layer, batch);
      this.multiply(layer.attended, rows);
      this.addResult(sum);
      this.normalise(sum, wide, layer.weights.forwardNorm);
      this.multiply(layer.inward, rows, 0);
      this.copyResult(rows * layer.inward.columns);
      this.multiply(layer.outward, rows);
      this.addResult(sum);
    });
    this.average(sum, batch);
    this.multiply(this.output, parts.length);
    const vectors = this.memory.floats32(this.at.result, parts.length * this.size).map(Math.tanh);
    parts.forEach((_, i) =>
      scaledToLengthOne(vectors.subarray(i * this.size, (i + 1) * this.size)),
    );
    return vectors;
  }

  /** Twice a piece's vector, as the network was trained with, and its position. */
  private embed({ start, pieces }: Batch): Float32Array {
    const { size, wholes, scales } = this.weights.embeddings;
    const embedded = new Float32Array(pieces.length * size);
    for (let text = 0; text + 1 < start.length; text++)
      for (let row = start[text]!; row < start[text + 1]!; row++) {
        const from = pieces[row]! * size;
        const scale = 2 * scales[pieces[row]!]!;
        const position = (row - start[text]!) * size;
        for (let d = 0; d < size; d++)
          embedded[row * size + d] = scale * wholes[from + d]! + this.positions[position + d]!;
      }
    return embedded;
  }

  private multiply(matrix: StoredMatrix, rows: number, floor?: number): void {
    multiplyRows(this.memory, matrix, this.at, { rows, ...(floor !== undefined && { floor }) });
  }

  private copyResult(length: number): void {
    this.memory.floats32(this.at.input, length).set(this.memory.floats32(this.at.result, length));
  }

  private addResult(sum: Float32Array): void {
    const result = this.memory.floats32(this.at.result, sum.length);
    for (let i = 0; i < sum.length; i++) sum[i]! += result[i]!;
  }

  /** Puts rows that are scaled to mean 0 and variance 1 into the input (layer normalisation; Ba et al. 2016). */
  private normalise(from: Float32Array, size: number, { scale, shift }: Affine): void {
    const into = this.memory.floats32(this.at.input, from.length);
    for (let row = 0; row < from.length; row += size) {
      let mean = 0;
      for (let i = row; i < row + size; i++) mean += from[i]!;
      mean /= size;
      let squares = 0;
      for (let i = row; i < row + size; i++) {
        const off = from[i]! - mean;
        squares += off * off;
      }
      const by = 1 / Math.sqrt(squares / size + NORM_EPSILON);
      for (let d = 0; d < size; d++)
        into[row + d] = (from[row + d]! - mean) * by * scale[d]! + shift[d]!;
    }
  }

  /** Puts into the input, for each piece, what the pieces of its text say, by how much they matter to it. */
  private attend({ weights: { heads }, attention }: Layer, { start }: Batch): void {
    const { memory, scores } = this;
    const { input, result } = this.at;
    const size = attention.columns / 3;
    const ofHead = size / heads;
    const stride = 4 * attention.columns;
    for (let text = 0; text + 1 < start.length; text++) {
      const first = start[text]!;
      const count = start[text + 1]! - first;
      const shares = memory.floats32(scores, count * count);
      for (let head = 0; head < heads; head++) {
        const query = result + first * stride + 4 * head * ofHead;
        const key = query + 4 * size;
        memory.run.scoreTokens(query, key, scores, count, count, stride, 4 * ofHead);
        for (let t = 0; t < count; t++)
          softmax(shares.subarray(t * count, (t + 1) * count), 1 / Math.sqrt(ofHead));
        const into = input + 4 * (first * size + head * ofHead);
        memory.run.mixTokens(scores, key + 4 * size, into, count, stride, 4 * size, 4 * ofHead);
      }
    }
  }

  /** Puts the mean over each text's pieces into the input. */
  private average(sum: Float32Array, { start }: Batch): void {
    const size = this.widening.columns;
    const into = this.memory.floats32(this.at.input, (start.length - 1) * size);
    for (let text = 0; text + 1 < start.length; text++) {
      const count = start[text + 1]! - start[text]!;
      for (let d = 0; d < size; d++) {
        let total = 0;
        for (let row = start[text]!; row < start[text + 1]!; row++) total += sum[row * size + d]!;
        into[text * size + d] = total / count;
      }
    }
  }
}

const productsOf = ({ attention, attended, inward, outward }: Layer) => [
  attention,
  attended,
  inward,
  outward,
];

function batchOf(parts: readonly Int32Array[]): Batch {
  const start = [0];
  for (const part of parts) start.push(start.at(-1)! + part.length);
  const pieces = new Int32Array(start.at(-1)!);
  parts.forEach((part, i) => pieces.set(part, start[i]));
  return { start, pieces };
}

function positionsOf({ longest, frequencies, embeddings }: EncoderWeights): Float32Array {
  const { size } = embeddings;
  const positions = new Float32Array(longest * size);
  for (let position = 0; position < longest; position++)
    frequencies.forEach((frequency, i) => {
      positions[position * size + i] = Math.sin(position * frequency);
      positions[position * size + frequencies.length + i] = Math.cos(position * frequency);
    });
  return positions;
}

function softmax(scores: Float32Array, scale: number): void {
  let largest = -Infinity;
  for (const score of scores) largest = Math.max(largest, score);
  let sum = 0;
  for (let i = 0; i < scores.length; i++) {
    const share = Math.exp((scores[i]! - largest) * scale);
    scores[i] = share;
    sum += share;
  }
  for (let i = 0; i < scores.length; i++) scores[i]! /= sum;
}

function scaledToLengthOne(vector: Float32Array): Float32Array {
  let squares = 0;
  for (const one of vector) squares += one * one;
  const by = 1 / Math.sqrt(Math.max(squares, 1e-12));
  for (let i = 0; i < vector.length; i++) vector[i]! *= by;
  return vector;
}
