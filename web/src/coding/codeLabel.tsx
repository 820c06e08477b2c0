import type { Mention } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import type { DrawnCode } from '../data/codebook.js';
import { StitchMark } from '../parts/stitch.js';

const origins = {
  hand: '',
  accepted: 'accepted suggestion',
  bulk: 'accepted in bulk',
  import: 'came with the sheet',
};
const shortOrigins = { hand: '', accepted: 'suggested', bulk: 'in bulk', import: 'from the sheet' };

/** A code as it stands beside its line: its stitch, its name, and taking it away. */
export function CodeLabel({
  mention,
  code,
  lifted,
  onLift,
  onRemove,
}: {
  mention: Mention;
  code: DrawnCode | undefined;
  lifted: boolean;
  onLift: (mention: string | null) => void;
  onRemove: () => void;
}) {
  if (!code) return null;
  const origin = origins[mention.origin];
  return (
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
      {origin && (
        <span className="text-[12px] text-soft" aria-label={origin}>
          {shortOrigins[mention.origin]}
        </span>
      )}
      <button
        type="button"
        tabIndex={-1}
        aria-label={`Take ${code.name} away`}
        onClick={onRemove}
        className="rounded p-0.5 text-soft opacity-0 hover:text-ink group-hover:opacity-100"
      >
        <X size={12} aria-hidden />
      </button>
    </span>
  );
}
