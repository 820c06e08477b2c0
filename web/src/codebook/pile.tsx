import type { MentionOfCode } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import { useState } from 'react';
import { useDropTarget } from '../parts/dragAndDrop.js';
import type { Piles } from './usePiles.js';
import { pileTexts } from './texts.js';

/** A pile of mentions that say the same, with the name that it will have as a code. */
export function Pile({
  pile,
  number,
  isCode,
  mentions,
  onPut,
  onTakeOff,
  onRename,
  onRemove,
}: {
  pile: Piles['piles'][number];
  number: number;
  /** A code of this name is there already, and joins the mentions to it. */
  isCode: boolean;
  mentions: MentionOfCode[];
  onPut: (mention: string) => void;
  onTakeOff: (mention: string) => void;
  onRename: (name: string) => void;
  onRemove: () => void;
}) {
  const [ref, isOver] = useDropTarget('mention', ({ mention }) => onPut(mention));
  const [open, setOpen] = useState(false);
  return (
    <article
      ref={ref}
      aria-label={pileTexts.pile(pile.name)}
      className={`rounded border px-3 py-2 ${isOver ? 'border-thread bg-wash' : 'border-rule'}`}
    >
      <p className="flex items-baseline gap-2">
        {number < 10 && <kbd>{number}</kbd>}
        <input
          aria-label={pileTexts.namePile(number)}
          value={pile.name}
          maxLength={120}
          onChange={(event) => onRename(event.target.value)}
          className="min-w-0 flex-1 bg-transparent font-semibold"
        />
        <button type="button" aria-label={pileTexts.removePile(pile.name)} onClick={onRemove}>
          <X size={13} aria-hidden className="text-soft" />
        </button>
      </p>
      <p className="text-[13px] text-soft">
        <button
          type="button"
          aria-expanded={open}
          disabled={mentions.length === 0}
          className={mentions.length > 0 ? 'underline' : ''}
          onClick={() => setOpen(!open)}
        >
          {pileTexts.mentionCounted(mentions.length)}
        </button>
        {isCode && pileTexts.codeNameTakesThem}
      </p>
      {open && (
        <ul className="mt-1 flex max-h-60 flex-col gap-1 overflow-y-auto">
          {mentions.map((mention) => (
            <li key={mention.id} className="flex items-baseline gap-2">
              <span className="min-w-0 flex-1 font-serif">
                {mention.start === null || mention.end === null
                  ? mention.text
                  : mention.text.slice(mention.start, mention.end)}
              </span>
              <button
                type="button"
                aria-label={pileTexts.takeOff}
                onClick={() => onTakeOff(mention.id)}
              >
                <X size={12} aria-hidden className="text-soft" />
              </button>
            </li>
          ))}
        </ul>
      )}
    </article>
  );
}
