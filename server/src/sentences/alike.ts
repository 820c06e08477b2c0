import type { SentenceVectors } from '@yellow-thread/core/sentences';
import { likeThese, orderTextsBySimilarity } from '@yellow-thread/core/similarity';
import { encodeTexts } from './encodeTexts.js';
import { storedVectors, type SharedVectors } from './storedVectors.js';

/** Texts that are compared. */
export interface ComparedTexts {
  texts: string[];
  /** Their sentence vectors; null where nothing is read for meaning. */
  vectors: SharedVectors | null;
  /** Those that may be passages without a vector of their own, to be read here; left out for none. */
  unread?: string[];
}

/** Passages that are read while somebody waits, at some milliseconds each. */
const MOST_READ = 500;

/** `orderTextsBySimilarity`, on a thread. */
export const orderAlike = async (compared: ComparedTexts) =>
  orderTextsBySimilarity(compared.texts, await readUnread(compared));

/**
 * How like each text is to some others taken together, on a thread.
 *
 * @returns as `likeThese`, by text
 */
export async function alikeTo({
  these,
  ...compared
}: ComparedTexts & { these: readonly string[] }): Promise<Float64Array> {
  const likeness = likeThese(
    [...these, ...compared.texts],
    these.map((_, i) => i),
    await readUnread(compared),
  );
  return likeness.subarray(these.length);
}

async function readUnread({
  texts,
  vectors,
  unread = [],
}: ComparedTexts): Promise<SentenceVectors | null> {
  if (!vectors) return null;
  const known = storedVectors(vectors);
  const missing = [...new Set(unread.filter((text) => !known.of(text)))].slice(0, MOST_READ);
  if (missing.length === 0) return known;
  const read = await encodeTexts({ texts: missing, others: texts });
  const found = new Map(missing.map((text, i) => [text, read[i]!]));
  return { size: known.size, of: (text) => found.get(text) ?? known.of(text) };
}
