import type { MentionOfCode } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import { useState } from 'react';
import { DRAGGED_SLIP } from './slip.js';
import type { Piles } from './usePiles.js';
import { pileTexts } from './texts.js';

/** A pile of slips that say the same, with the name that it will have as a code. */
export function Pile({
  pile,
  number,
  isCode,
  slips,
  onPut,
  onTakeOff,
  onRename,
  onRemove,
}: {
  pile: Piles['piles'][number];
  number: number;
  /** A code of this name is there already, and takes the slips in. */
  isCode: boolean;
  slips: MentionOfCode[];
  onPut: (mention: string) => void;
  onTakeOff: (mention: string) => void;
  onRename: (name: string) => void;
  onRemove: () => void;
}) {
  const [over, setOver] = useState(false);
  const [open, setOpen] = useState(false);
  return (
    <article
      aria-label={`Pile ${pile.name}`}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes(DRAGGED_SLIP)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        setOver(false);
        const mention = event.dataTransfer.getData(DRAGGED_SLIP);
        if (mention === '') return;
        event.preventDefault();
        onPut(mention);
      }}
      className={`rounded border px-3 py-2 ${over ? 'border-thread bg-wash' : 'border-rule'}`}
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
          disabled={slips.length === 0}
          className={slips.length > 0 ? 'underline' : ''}
          onClick={() => setOpen(!open)}
        >
          {pileTexts.slipCounted(slips.length)}
        </button>
        {isCode && pileTexts.codeNameTakesThem}
      </p>
      {open && (
        <ul className="mt-1 flex max-h-60 flex-col gap-1 overflow-y-auto">
          {slips.map((slip) => (
            <li key={slip.id} className="flex items-baseline gap-2">
              <span className="min-w-0 flex-1 font-serif">
                {slip.start === null || slip.end === null
                  ? slip.text
                  : slip.text.slice(slip.start, slip.end)}
              </span>
              <button
                type="button"
                aria-label={pileTexts.takeOff}
                onClick={() => onTakeOff(slip.id)}
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
