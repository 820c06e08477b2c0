import { useState, type DragEvent, type KeyboardEvent } from 'react';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { DRAGGED_CODE } from '../parts/draggedCode.js';
import { codeRowsTexts } from './texts.js';

interface Target {
  themeId: string | null;
  before: string | null;
}

/** The codes of a theme, each with its people and mentions; dragged or moved by key to another place. */
export function CodeRows({
  codes,
  themeId,
  codebook,
  chosen,
  canMove,
  onChoose,
  onMove,
}: {
  codes: DrawnCode[];
  themeId: string | null;
  codebook: DrawnCodebook;
  chosen: string | null;
  /** False while they are not in their own order. */
  canMove: boolean;
  onChoose: (id: string) => void;
  onMove: (id: string, to: Target) => void;
}) {
  const [over, setOver] = useState<string | null>(null);
  const dropOn = (before: string | null) => ({
    onDragOver: (event: DragEvent) => {
      if (!canMove || !event.dataTransfer.types.includes(DRAGGED_CODE)) return;
      event.preventDefault();
      setOver(before ?? '');
    },
    onDragLeave: () => setOver(null),
    onDrop: (event: DragEvent) => {
      const id = event.dataTransfer.getData(DRAGGED_CODE);
      setOver(null);
      if (id === '' || id === before) return;
      event.preventDefault();
      onMove(id, { themeId, before });
    },
  });
  const onKey = (event: KeyboardEvent, place: number) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    if (event.altKey) {
      const target = canMove ? placeAfter(codebook, codes, themeId, place, step) : null;
      if (target) onMove(codes[place]!.id, target);
      return;
    }
    const buttons = [
      ...(event.currentTarget.closest('main')?.querySelectorAll<HTMLElement>('[data-code]') ?? []),
    ];
    buttons[buttons.indexOf(event.currentTarget as HTMLElement) + step]?.focus();
  };
  return (
    <ul>
      {codes.map((code, place) => (
        <li key={code.id} {...dropOn(code.id)}>
          <button
            type="button"
            data-code={code.id}
            draggable={canMove}
            onDragStart={(event) => event.dataTransfer.setData(DRAGGED_CODE, code.id)}
            aria-pressed={code.id === chosen}
            onClick={() => onChoose(code.id)}
            onKeyDown={(event) => onKey(event, place)}
            className={`flex w-full items-baseline gap-3 rounded px-2 py-1 text-left hover:bg-wash aria-pressed:bg-wash ${over === code.id ? 'border-t-2 border-thread' : ''}`}
          >
            <span className="min-w-0 flex-1 truncate">{code.name}</span>
            <span className="figures text-[13px] text-soft">
              {codeRowsTexts.peopleCounted(code.people)} ·{' '}
              {codeRowsTexts.mentionCounted(code.mentions)}
            </span>
          </button>
        </li>
      ))}
      <li
        aria-hidden
        {...dropOn(null)}
        className={`h-2 ${over === '' ? 'border-t-2 border-thread' : ''}`}
      />
    </ul>
  );
}

/** Where one step up or down leads: past a neighbour, or at the edge into the theme beside. */
function placeAfter(
  { themes, codes: all }: DrawnCodebook,
  codes: DrawnCode[],
  themeId: string | null,
  place: number,
  step: number,
): Target | null {
  if (step === -1 && place > 0) return { themeId, before: codes[place - 1]!.id };
  if (step === 1 && place < codes.length - 1)
    return { themeId, before: codes[place + 2]?.id ?? null };
  const order = [...themes.map((theme) => theme.id), null];
  const at = order.indexOf(themeId) + step;
  if (at < 0 || at >= order.length) return null;
  const next = order[at]!;
  const first = all.find((code) => code.themeId === next && !code.archived);
  return { themeId: next, before: step === 1 ? (first?.id ?? null) : null };
}
