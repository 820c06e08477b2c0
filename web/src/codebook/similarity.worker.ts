import { likeThese, orderBySimilarity } from '@yellow-thread/core/text';

export interface SimilarityTask {
  texts: string[];
  /** Indices of the texts to order the others by similarity to; null to order all by similarity. */
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
