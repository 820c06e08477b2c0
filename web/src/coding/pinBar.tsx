import { usePins, type SeenCodebook } from '../data/codebook.js';
import { StitchMark } from '../parts/stitch.js';
import { pinBarTexts } from './texts.js';

/** Which codes stand under the keys 1 to 9. */
export function PinBar({ study, codebook }: { study: number; codebook: SeenCodebook }) {
  const { data: pins = [] } = usePins(study);
  if (pins.length === 0) return null;
  return (
    <ul
      aria-label={pinBarTexts.pinnedCodes}
      className="flex shrink-0 flex-wrap gap-x-5 gap-y-1 border-t border-rule bg-card px-6 py-1.5 text-[13px]"
    >
      {pins.map(({ key, codeId }) => {
        const code = codebook.byId.get(codeId);
        return code ? (
          <li key={key} className="flex items-center gap-1.5">
            <kbd>{key}</kbd>
            <StitchMark look={code.look} width={18} />
            {code.name}
          </li>
        ) : null;
      })}
    </ul>
  );
}
