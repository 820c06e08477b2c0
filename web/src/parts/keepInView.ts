import type { Virtualizer } from '@tanstack/react-virtual';
import { useEffect } from 'react';

/**
 * Scrolls a row of a long list into view when it becomes the active one. Where it is in view already nothing is asked
 * of the browser: to scroll to a row makes it lay the page out at once.
 *
 * @param room what must stay free above and below the row, in px
 */
export function useKeepInView(
  rows: Virtualizer<HTMLDivElement, Element>,
  index: number,
  room: { above: number; below: number } = { above: 0, below: 0 },
): void {
  const { above, below } = room;
  useEffect(() => {
    const row = rows.measurementsCache[index];
    const top = rows.scrollOffset ?? 0;
    const height = rows.scrollRect?.height ?? 0;
    if (row && row.start - above >= top && row.end + below <= top + height) return;
    rows.scrollToIndex(index, { align: 'auto' });
  }, [rows, index, above, below]);
}
