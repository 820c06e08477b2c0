import { useEffect, useRef, useState } from 'react';
import type { SimilarityDone, SimilarityTask } from './similarity.worker.js';

/**
 * The order of texts; computed in a worker, so that the page never waits.
 *
 * @param like indices of texts to order the others by similarity to, when `order` says so
 * @returns indices of the texts; as they are given until the order is known
 */
export function useSimilarity(
  texts: readonly string[],
  order: 'similar' | 'likeLast' | 'asImported',
  like: readonly number[],
): number[] {
  const worker = useRef<Worker | null>(null);
  const [found, setFound] = useState<{ texts: readonly string[]; order: number[] } | null>(null);
  const wanted = order === 'likeLast' ? like.join(' ') : '';
  useEffect(() => {
    if (order === 'asImported') return undefined;
    worker.current = new Worker(new URL('./similarity.worker.ts', import.meta.url), {
      type: 'module',
    });
    worker.current.onmessage = ({ data }: MessageEvent<SimilarityDone>) =>
      setFound({ texts, order: data.order });
    const indices = wanted === '' ? null : wanted.split(' ').map(Number);
    worker.current.postMessage({
      texts: [...texts],
      like: order === 'likeLast' ? indices : null,
    } satisfies SimilarityTask);
    return () => worker.current?.terminate();
  }, [texts, order, wanted]);
  return order !== 'asImported' && found?.texts === texts ? found.order : texts.map((_, i) => i);
}
