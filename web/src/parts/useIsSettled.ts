import { useEffect, useRef, useState } from 'react';

/** What passes by faster than this is not fetched. */
const REST_MS = 100;

/**
 * Whether what is in view has stayed for a moment: a long list that flies past would ask for everything in it, and take
 * back most of that in the next frame. What comes after a rest counts at once.
 */
export function useIsSettled(inView: string): boolean {
  const [rested, setRested] = useState(inView);
  const changed = useRef(0);
  useEffect(() => {
    const now = performance.now();
    const wait = now - changed.current > REST_MS ? 0 : REST_MS;
    changed.current = now;
    const timer = setTimeout(() => setRested(inView), wait);
    return () => clearTimeout(timer);
  }, [inView]);
  return rested === inView;
}
