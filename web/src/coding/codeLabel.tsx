import type { Mention } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import { ContextMenu } from 'radix-ui';
import type { SeenCode } from '../data/codebook.js';
import { StitchMark } from '../parts/stitch.js';
import { codeLabelTexts } from './texts.js';

const origins = {
  hand: '',
  accepted: codeLabelTexts.acceptedSuggestion,
  bulk: codeLabelTexts.acceptedBulk,
  import: codeLabelTexts.cameSheet,
  words: codeLabelTexts.wordsLooked,
};
const shortOrigins = {
  hand: '',
  accepted: 'suggested',
  bulk: codeLabelTexts.bulk,
  import: 'from the sheet',
  words: codeLabelTexts.words,
};

/** A code as it stands beside its line: its stitch, its name, and what can be done with it. */
export function CodeLabel({
  mention,
  code,
  lifted,
  onLift,
  onRemove,
  onReplace,
  onMove,
  onTypical,
}: {
  mention: Mention;
  code: SeenCode | undefined;
  lifted: boolean;
  onLift: (mention: string | null) => void;
  onRemove: () => void;
  onReplace: () => void;
  /** Puts it on the passage that is marked; null while none is. */
  onMove: (() => void) | null;
  onTypical: () => void;
}) {
  if (!code) return null;
  const origin = origins[mention.origin];
  return (
    <ContextMenu.Root>
      <ContextMenu.Trigger asChild>
        <span
          data-label={mention.id}
          onPointerEnter={() => onLift(mention.id)}
          onPointerLeave={() => onLift(null)}
          title={[code.themeName, code.definition, origin].filter(Boolean).join(' — ')}
          className={`group inline-flex items-center gap-1.5 rounded px-1 leading-6 ${lifted ? 'bg-wash' : ''}`}
        >
          <StitchMark look={code.look} width={18} />
          <span style={{ color: code.look.ink }} className="font-medium">
            {code.name}
          </span>
          {mention.typical && (
            <span className="text-[12px] text-soft">{codeLabelTexts.typical}</span>
          )}
          {origin && (
            <span className="text-[12px] text-soft" aria-label={origin}>
              {shortOrigins[mention.origin]}
            </span>
          )}
          <button
            type="button"
            tabIndex={-1}
            aria-label={codeLabelTexts.takeAway(code.name)}
            onClick={onRemove}
            className="rounded p-0.5 text-soft opacity-0 hover:text-ink group-hover:opacity-100"
          >
            <X size={12} aria-hidden />
          </button>
        </span>
      </ContextMenu.Trigger>
      <ContextMenu.Portal>
        <ContextMenu.Content className="z-30 min-w-48 rounded border border-rule bg-card p-1 shadow-[0_6px_20px_#0000001f]">
          <Item onSelect={onReplace}>{codeLabelTexts.anotherCodeInstead}</Item>
          <Item onSelect={onMove}>{codeLabelTexts.moveMarkedPassage}</Item>
          <Item onSelect={onTypical}>
            {mention.typical ? codeLabelTexts.noLongerExample : codeLabelTexts.pinExample}
          </Item>
          <Item onSelect={onRemove}>{codeLabelTexts.takeAway2}</Item>
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  );
}

function Item({
  children,
  onSelect,
}: {
  children: React.ReactNode;
  onSelect: (() => void) | null;
}) {
  return (
    <ContextMenu.Item
      disabled={onSelect === null}
      onSelect={() => onSelect?.()}
      className="cursor-pointer rounded px-3 py-1 outline-none data-[disabled]:opacity-50 data-[highlighted]:bg-wash"
    >
      {children}
    </ContextMenu.Item>
  );
}
