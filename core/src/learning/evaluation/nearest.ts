import type { SparseRows } from '../features/sparseRows.js';

/** For each of some rows its nearest others, nearest first, as places in the list of rows. */
export interface Neighbours {
  places: Int32Array[];
  likeness: Float64Array[];
}

/** With more answers than this they are not compared each with each. */
const MOST_COMPARED = 1000;
const KEPT = 40;
const ASKED = 10;

/**
 * The answers most like each of some, by the cosine of their numbers.
 *
 * @param rowOf the row of each answer
 * @returns null where there are too many to compare
 */
export function findNeighbours(
  x: SparseRows,
  answers: readonly number[],
  rowOf: ReadonlyMap<number, number>,
): Neighbours | null {
  const n = answers.length;
  if (n > MOST_COMPARED) return null;
  const products = productsOf(
    x,
    answers.map((answer) => rowOf.get(answer)!),
  );
  const lengths = answers.map((_, i) => Math.sqrt(products[i * n + i]!) || 1);
  const found = answers.map((_, i) => {
    const like = Float64Array.from(
      lengths,
      (length, j) => products[i * n + j]! / (lengths[i]! * length),
    );
    const nearest = Int32Array.from(answers.keys())
      .sort((a, b) => like[b]! - like[a]! || a - b)
      .filter((there) => there !== i)
      .slice(0, KEPT);
    return { nearest, like: Float64Array.from(nearest, (there) => Math.max(0, like[there]!)) };
  });
  return {
    places: found.map(({ nearest }) => nearest),
    likeness: found.map(({ like }) => like),
  };
}

/** The products of each of some rows with each, n × n. */
function productsOf(x: SparseRows, rows: readonly number[]): Float64Array {
  const n = rows.length;
  const products = new Float64Array(n * n);
  const dense = new Float64Array(x.columns);
  rows.forEach((row, i) => {
    for (let k = x.start[row]!; k < x.start[row + 1]!; k++) dense[x.column[k]!] = x.value[k]!;
    for (let j = i; j < n; j++) {
      const other = rows[j]!;
      let dot = 0;
      for (let k = x.start[other]!; k < x.start[other + 1]!; k++)
        dot += x.value[k]! * dense[x.column[k]!]!;
      products[i * n + j] = dot;
      products[j * n + i] = dot;
    }
    for (let k = x.start[row]!; k < x.start[row + 1]!; k++) dense[x.column[k]!] = 0;
  });
  return products;
}

/**
 * What the nearest coded answers say of each: the share of its ten nearest that have the code, counted by similarity.
 * Answers of its own fold are not asked.
 *
 * @param labels 1 or 0 by place
 * @returns a number from 0 to 1 by place
 * @see Cover & Hart (1967) Nearest neighbor pattern classification; Dudani (1976) for the weights
 */
export function scoreByNearest(
  { places, likeness }: Neighbours,
  labels: Uint8Array,
  foldOf: Int32Array,
): Float64Array {
  return Float64Array.from(places, (near, place) => {
    let [asked, sum, of] = [0, 0, 0];
    for (let k = 0; k < near.length && asked < ASKED; k++) {
      if (foldOf[near[k]!] === foldOf[place]) continue;
      asked += 1;
      sum += likeness[place]![k]! * labels[near[k]!]!;
      of += likeness[place]![k]!;
    }
    return of === 0 ? 0 : sum / of;
  });
}
