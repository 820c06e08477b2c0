import type { MentionOfCode } from '@yellow-thread/contract';
import type { KeyboardEvent } from 'react';
import type { DrawnCode } from '../data/codebook.js';
import { runCommand } from '../frame/commands.js';
import { useDraggable } from '../parts/dragAndDrop.js';
import { Passage } from '../parts/passage.js';
import type { Piles } from './usePiles.js';
import { mentionCommands, type AtMention } from './commands.js';
import { mentionCardTexts } from './texts.js';

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
  const ref = useDraggable('mention', { mention: mention.id });
  const onKey = (event: KeyboardEvent<HTMLElement>) => {
    const mentions = [
      ...(event.currentTarget.closest('ul')?.querySelectorAll<HTMLElement>('[data-mention-card]') ??
        []),
    ];
    const place = mentions.indexOf(event.currentTarget);
    const here: AtMention = {
      focus: (step) => mentions[place + step]?.focus(),
      put: (number) => {
        const pile = piles[number - 1];
        if (!pile) return false;
        // the next mention is under the same hand
        (mentions[place + 1] ?? mentions[place - 1])?.focus();
        onPut(pile.id);
        return true;
      },
    };
    if (runCommand(mentionCommands, here, event.nativeEvent)) event.preventDefault();
  };
  if (!code) return null;
  return (
    <li>
      <div
        ref={ref}
        role="button"
        tabIndex={isFirst ? 0 : -1}
        data-mention-card={mention.id}
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
