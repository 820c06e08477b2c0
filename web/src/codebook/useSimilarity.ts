import type { MentionOfCode } from '@yellow-thread/contract';
import { useMemo } from 'react';
import { useMentionOrder } from '../data/codebook.js';

/**
 * Mentions in the order in which they are sorted.
 *
 * @param like ids of those that the others are compared with, when `order` says so
 * @returns the mentions; as they are given until the order is known
 */
export function useSimilarity(
  study: number,
  codes: readonly string[],
  mentions: readonly MentionOfCode[],
  { order, like }: { order: 'similar' | 'likeLast' | 'asImported'; like: readonly string[] },
): readonly MentionOfCode[] {
  const isLike = order === 'likeLast' && like.length > 0;
  const found = useMentionOrder(
    study,
    { codes, like: isLike ? like : null },
    order !== 'asImported',
  );
  return useMemo(() => {
    if (order === 'asImported' || !found) return mentions;
    const placeOf = new Map(found.map((id, place) => [id, place]));
    const place = ({ id }: MentionOfCode) => placeOf.get(id) ?? found.length;
    return [...mentions].sort((x, y) => place(x) - place(y));
  }, [mentions, order, found]);
}
