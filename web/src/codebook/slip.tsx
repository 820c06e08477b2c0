import type { MentionOfCode } from '@yellow-thread/contract';
import type { KeyboardEvent } from 'react';
import type { DrawnCode } from '../data/codebook.js';
import { Passage } from '../parts/passage.js';
import type { Piles } from './usePiles.js';
import { slipTexts } from './texts.js';

/** Under which kind a slip travels while it is dragged. */
export const DRAGGED_SLIP = 'application/x-yellow-thread-slip';

/** One mention as a slip of paper: dealt by number or dragged onto a pile. */
export function Slip({
  mention,
  code,
  showsCode,
  isFirst,
  piles,
  onPut,
}: {
  mention: MentionOfCode;
  code: DrawnCode | undefined;
  showsCode: boolean;
  /** The slip that the keys begin with. */
  isFirst: boolean;
  piles: Piles['piles'];
  onPut: (pile: string | null) => void;
}) {
  const onKey = (event: KeyboardEvent<HTMLElement>) => {
    const slips = [
      ...(event.currentTarget.closest('ul')?.querySelectorAll<HTMLElement>('[data-slip]') ?? []),
    ];
    const place = slips.indexOf(event.currentTarget);
    if (event.key === 'ArrowDown') slips[place + 1]?.focus();
    else if (event.key === 'ArrowUp') slips[place - 1]?.focus();
    else if (/^[1-9]$/u.test(event.key)) {
      const pile = piles[Number(event.key) - 1];
      if (!pile) return;
      // the next slip is under the same hand
      (slips[place + 1] ?? slips[place - 1])?.focus();
      onPut(pile.id);
    } else return;
    event.preventDefault();
  };
  if (!code) return null;
  return (
    <li>
      <div
        role="button"
        tabIndex={isFirst ? 0 : -1}
        data-slip={mention.id}
        draggable
        onDragStart={(event) => event.dataTransfer.setData(DRAGGED_SLIP, mention.id)}
        onKeyDown={onKey}
        aria-label={slipTexts.slip(mention.externalId)}
        className="cursor-grab rounded border border-rule bg-card px-3 py-1.5 focus:border-thread"
      >
        <p className="voice">
          <Passage text={mention.text} start={mention.start} end={mention.end} look={code.look} />
        </p>
        {showsCode && (
          <span className="text-[13px]" style={{ color: code.look.ink }}>
            {code.name}
          </span>
        )}
      </div>
    </li>
  );
}
