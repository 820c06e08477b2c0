import { likeThese, orderBySimilarity } from '@yellow-thread/core/text';

export interface SimilarityTask {
  texts: string[];
  /** Indices of the texts that the likest come first to; null to lay all out by likeness. */
  like: number[] | null;
}
export interface SimilarityDone {
  order: number[];
}

self.onmessage = ({ data }: MessageEvent<SimilarityTask>) => {
  const { texts, like } = data;
  const order = like ? byLikeness(likeThese(texts, like)) : orderBySimilarity(texts);
  self.postMessage({ order } satisfies SimilarityDone);
};

const byLikeness = (likeness: Float64Array) =>
  [...likeness.keys()].sort((x, y) => likeness[y]! - likeness[x]! || x - y);
