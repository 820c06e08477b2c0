import { useState, type PointerEvent } from 'react';
import { fillDownTexts } from './texts.js';

/** The places from one to another, both among them. */
export const rangeOf = (from: number, to: number): number[] =>
  Array.from({ length: Math.abs(to - from) + 1 }, (_, i) => Math.min(from, to) + i);

/** What a handle does while it is dragged over rows that carry `data-column`. */
interface HandleProps {
  onPointerDown: (event: PointerEvent<HTMLElement>) => void;
  onPointerMove: (event: PointerEvent<HTMLElement>) => void;
  onPointerUp: () => void;
  onPointerCancel: () => void;
}

/**
 * Drags what one row has onto the rows below or above it.
 *
 * @param onFill is told the row and the last one that the pointer was over
 */
export function useFillDown(onFill: (from: number, to: number) => void) {
  const [drag, setDrag] = useState<{ from: number; to: number } | null>(null);
  const handle = (from: number): HandleProps => ({
    onPointerDown: (event) => {
      event.preventDefault();
      event.currentTarget.setPointerCapture(event.pointerId);
      setDrag({ from, to: from });
    },
    onPointerMove: ({ clientX, clientY }) => {
      if (!drag) return;
      const row = document.elementFromPoint(clientX, clientY)?.closest('[data-column]');
      if (row instanceof HTMLElement) setDrag({ from, to: Number(row.dataset['column']) });
    },
    onPointerUp: () => {
      if (drag && drag.to !== drag.from) onFill(drag.from, drag.to);
      setDrag(null);
    },
    onPointerCancel: () => setDrag(null),
  });
  const covers = (c: number) => drag !== null && rangeOf(drag.from, drag.to).includes(c);
  return { handle, covers };
}

/** The corner by which a role is dragged to other columns; by keyboard they are chosen and set together. */
export const FillHandle = ({ name, ...drag }: HandleProps & { name: string }) => (
  <span
    aria-hidden
    title={fillDownTexts.dragGiveOtherColumns(name)}
    className="absolute right-2.5 top-[36px] size-2.5 cursor-ns-resize touch-none bg-soft opacity-0 hover:bg-thread [tr:hover_&]:opacity-100"
    {...drag}
  />
);
