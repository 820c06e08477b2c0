import {
  clusterTexts,
  denseRows,
  likeChosen,
  representatives,
  type TextClusters,
} from '@yellow-thread/core/cluster';
import type { LeftOut } from '@yellow-thread/core/look';
import type { SentenceVectors } from '@yellow-thread/core/sentences';

/** Answers that are compared. */
interface Compared {
  texts: string[];
  /** Others of the same question, beside which a few can be told apart. */
  others: string[];
  /** Their sentence vectors; null where nothing is read for meaning. */
  vectors: SentenceVectors | null;
}

/** Answers gathered by likeness, on a thread. */
export const clustersWork = (
  { texts, vectors, ...asked }: Compared & { k: number | null; most: number; leftOut: LeftOut },
  onProgress: (progress: { done: number; of: number }) => void,
): TextClusters => clusterTexts(texts, vectors, { ...asked, onProgress });

/** The few answers that stand for most, and which are like each, by their indices; on a thread. */
export function representativesWork({
  texts,
  others,
  vectors,
  count,
}: Compared & { count: number }): {
  isMeaning: boolean;
  chosen: { row: number; like: number[] }[];
} {
  const rows = denseRows(texts, vectors, others);
  return { isMeaning: rows.isMeaning, chosen: likeChosen(rows, representatives(rows, count)) };
}
