import { X } from 'lucide-react';
import type { SeenCodebook } from '../data/codebook.js';
import { StitchMark } from '../parts/stitch.js';
import { codeListTexts } from './texts.js';

/** Codes in a row, by their stitches and names. */
export function CodeList({
  codeIds,
  codebook,
  onRemove,
}: {
  codeIds: readonly string[];
  codebook: SeenCodebook;
  onRemove?: (place: number) => void;
}) {
  return (
    <p className="flex flex-wrap gap-x-3">
      {codeIds.map((id, place) => {
        const code = codebook.byId.get(id);
        if (!code) return null;
        return (
          <span key={place} className="inline-flex items-center gap-1.5 text-[13px]">
            <StitchMark look={code.look} width={18} />
            <span style={{ color: code.look.ink }}>{code.name}</span>
            {onRemove && (
              <button
                type="button"
                aria-label={codeListTexts.takeAway(code.name)}
                onClick={() => onRemove(place)}
                className="text-soft hover:text-ink"
              >
                <X size={12} aria-hidden />
              </button>
            )}
          </span>
        );
      })}
    </p>
  );
}
