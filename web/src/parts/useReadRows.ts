import { useCallback, useEffect, useRef, useState } from 'react';

/** At which of some answers one is that are read from top to bottom, and what each `ReadRow` must know of it. */
export function useReadRows(count: number, start: number) {
  const [active, setActive] = useState(Math.max(0, start));
  const rows = useRef<(HTMLElement | null)[]>([]);
  useEffect(() => {
    rows.current[active]?.scrollIntoView({ block: 'nearest' });
  }, [active]);
  const goTo = useCallback(
    (to: number) => setActive(Math.min(count - 1, Math.max(0, to))),
    [count],
  );
  const rowOf = (at: number) => ({
    ref: (row: HTMLElement | null) => {
      rows.current[at] = row;
    },
    at,
    of: count,
    isActive: at === active,
    onActive: () => setActive(at),
  });
  return { active, goTo, rowOf };
}
