import { nearDuplicates } from './nearDuplicates.js';
import type { SentenceVectors } from '../sentences/index.js';
import { similarityRows } from './similarityRows.js';
import type { TfidfRows } from './tfidfRows.js';

const ROUNDS = 5;
const LEAF = 6;

/**
 * Orders texts so that those about the same things stand near each other: the texts, as vectors of their words
 * weighted by rarity (tf-idf) and of their meaning, are halved again and again along the direction in which they differ most (a
 * principal direction, by power iteration; Boley 1998, principal direction divisive partitioning).
 *
 * @param vectors sentence vectors of the texts; null where nothing is read for meaning
 * @returns indices of the texts, each once; the same for the same texts
 */
export function orderBySimilarity(
  texts: readonly string[],
  vectors: SentenceVectors | null = null,
): number[] {
  const scoresOf = principalDirections(similarityRows(texts, vectors));
  const order: number[] = [];
  const halve = (members: number[], depth: number): void => {
    if (members.length <= LEAF || depth > 40) {
      order.push(...members);
      return;
    }
    const along = scoresOf(members);
    const places = Uint32Array.from(along.keys()).sort((x, y) => along[x]! - along[y]! || x - y);
    const sorted = Array.from(places, (place) => members[place]!);
    const at = widestGap(Float64Array.from(places, (place) => along[place]!));
    halve(sorted.slice(0, at), depth + 1);
    halve(sorted.slice(at), depth + 1);
  };
  halve(
    texts.map((_, i) => i),
    0,
  );
  return order;
}

/** Gives how far each member lies along the direction in which the members differ most from their mean. */
function principalDirections({ start, column, value, columns }: TfidfRows) {
  // kept from one half to the next: only columns that members have are ever looked at
  const mean = new Float64Array(columns);
  const direction = new Float64Array(columns);
  const seenBy = new Int32Array(columns);
  let calls = 0;
  return (members: readonly number[]): Float64Array => {
    calls += 1;
    const present: number[] = [];
    for (const member of members)
      for (let e = start[member]!; e < start[member + 1]!; e++) {
        const c = column[e]!;
        if (seenBy[c] !== calls) {
          seenBy[c] = calls;
          present.push(c);
          mean[c] = 0;
        }
        mean[c]! += value[e]! / members.length;
      }
    const scores = new Float64Array(members.length);
    // begins from the members' own order, which is as good as any and always the same
    for (let i = 0; i < members.length; i++) scores[i] = i % 2 === 0 ? 1 : -1 - i / members.length;
    for (let round = 0; round < ROUNDS; round++) {
      let sum = 0;
      for (let i = 0; i < members.length; i++) sum += scores[i]!;
      for (const c of present) direction[c] = -mean[c]! * sum;
      for (let i = 0; i < members.length; i++) {
        const member = members[i]!;
        for (let e = start[member]!; e < start[member + 1]!; e++)
          direction[column[e]!]! += value[e]! * scores[i]!;
      }
      let square = 0;
      for (const c of present) square += direction[c]! ** 2;
      const norm = Math.sqrt(square) || 1;
      let shift = 0;
      for (const c of present) {
        direction[c]! /= norm;
        shift += direction[c]! * mean[c]!;
      }
      for (let i = 0; i < members.length; i++) {
        const member = members[i]!;
        let score = -shift;
        for (let e = start[member]!; e < start[member + 1]!; e++)
          score += value[e]! * direction[column[e]!]!;
        scores[i] = score;
      }
    }
    return scores;
  };
}

/** Where sorted scores are split: at the widest gap of their middle half, where least hangs together. */
function widestGap(scores: Float64Array): number {
  const from = Math.max(1, Math.floor(scores.length / 4));
  const to = Math.min(scores.length - 1, Math.ceil((scores.length * 3) / 4));
  let at = Math.floor(scores.length / 2);
  let widest = 0;
  for (let i = from; i <= to; i++) {
    const gap = scores[i]! - scores[i - 1]!;
    if (gap > widest) [at, widest] = [i, gap];
  }
  return at;
}

/**
 * The same order, with texts that are nearly the same one after the other.
 *
 * @returns the order, and for each place whether its text is nearly the same as the one before it
 */
export function orderTextsBySimilarity(
  texts: readonly string[],
  vectors: SentenceVectors | null = null,
): {
  order: number[];
  near: boolean[];
} {
  const firstOf = nearDuplicates(texts);
  const groups = new Map<number, number[]>();
  for (const [i, first] of firstOf.entries()) {
    const group = groups.get(first);
    if (group) group.push(i);
    else groups.set(first, [i]);
  }
  const firsts = [...groups.keys()];
  const order = orderBySimilarity(
    firsts.map((first) => texts[first]!),
    vectors,
  ).flatMap((place) => groups.get(firsts[place]!)!);
  return { order, near: order.map((i) => firstOf[i] !== i) };
}
