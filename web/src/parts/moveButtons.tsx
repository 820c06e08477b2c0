import { ChevronDown, ChevronUp } from 'lucide-react';
import { moveButtonsTexts } from './texts.js';

/** Moves one thing of an ordered list up or down. */
export function MoveButtons({
  what,
  index,
  count,
  disabled = false,
  onMove,
}: {
  what: string;
  index: number;
  count: number;
  disabled?: boolean;
  onMove: (from: number, to: number) => void;
}) {
  const look = 'flex size-6 items-center justify-center rounded hover:bg-wash disabled:opacity-30';
  return (
    <span className="flex flex-col">
      <button
        type="button"
        aria-label={moveButtonsTexts.moveUp(what)}
        disabled={disabled || index === 0}
        className={look}
        onClick={() => onMove(index, index - 1)}
      >
        <ChevronUp size={15} aria-hidden />
      </button>
      <button
        type="button"
        aria-label={moveButtonsTexts.moveDown(what)}
        disabled={disabled || index === count - 1}
        className={look}
        onClick={() => onMove(index, index + 1)}
      >
        <ChevronDown size={15} aria-hidden />
      </button>
    </span>
  );
}

/** The list with one thing moved to another place. */
export function moved<Item>(list: readonly Item[], from: number, to: number): Item[] {
  const next = [...list];
  next.splice(to, 0, ...next.splice(from, 1));
  return next;
}
