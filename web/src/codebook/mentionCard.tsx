import type { MentionOfCode } from '@yellow-thread/contract';
import type { KeyboardEvent } from 'react';
import type { DrawnCode } from '../data/codebook.js';
import { Passage } from '../parts/passage.js';
import type { Piles } from './usePiles.js';
import { mentionCardTexts } from './texts.js';

/** Under which kind a mention travels while it is dragged. */
export const DRAGGED_MENTION = 'application/x-yellow-thread-mention';

/** One mention: put on a pile by its number or dragged onto a pile. */
export function MentionCard({
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
  /** The mention that the keys begin with. */
  isFirst: boolean;
  piles: Piles['piles'];
  onPut: (pile: string | null) => void;
}) {
  const onKey = (event: KeyboardEvent<HTMLElement>) => {
    const mentions = [
      ...(event.currentTarget.closest('ul')?.querySelectorAll<HTMLElement>('[data-mention-card]') ??
        []),
    ];
    const place = mentions.indexOf(event.currentTarget);
    if (event.key === 'ArrowDown') mentions[place + 1]?.focus();
    else if (event.key === 'ArrowUp') mentions[place - 1]?.focus();
    else if (/^[1-9]$/u.test(event.key)) {
      const pile = piles[Number(event.key) - 1];
      if (!pile) return;
      // the next mention is under the same hand
      (mentions[place + 1] ?? mentions[place - 1])?.focus();
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
        data-mention-card={mention.id}
        draggable
        onDragStart={(event) => event.dataTransfer.setData(DRAGGED_MENTION, mention.id)}
        onKeyDown={onKey}
        aria-label={mentionCardTexts.mention(mention.externalId)}
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
