import type { Review } from '@yellow-thread/contract';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useMoveThreshold } from '../data/review.js';
import { useStudyLocation } from '../frame/studyLocation.js';

/** Where a code's line lies, and how it is moved: on screen at once, kept when it comes to rest. */
export function useThreshold(codeId: string, review: Review | undefined) {
  const { study, question } = useStudyLocation();
  const { mutate: moveOnServer } = useMoveThreshold(study.id, question.id, codeId);
  const [moved, setMoved] = useState<number | null>(null);
  // kept a moment after it comes to rest, not at every pixel
  const rest = useRef<ReturnType<typeof setTimeout>>(undefined);
  const moveThreshold = useCallback(
    (to: number) => {
      setMoved(to);
      clearTimeout(rest.current);
      rest.current = setTimeout(() => moveOnServer(to, { onError: () => setMoved(null) }), 400);
    },
    [moveOnServer],
  );
  useEffect(() => () => clearTimeout(rest.current), []);
  return { threshold: moved ?? review?.threshold ?? 1, moveThreshold };
}
