import { asPercent } from '../lib/numbers.js';
import { sizeTexts } from './texts.js';

/** How many belong to a group, as a count, a share and a length. */
export function Size({ people, of }: { people: number; of: number }) {
  const share = of > 0 ? people / of : 0;
  return (
    <div className="figures">
      <span className="flex items-baseline justify-between gap-3">
        <strong className="font-semibold">{sizeTexts.peopleCounted(people)}</strong>
        <span className="text-soft">{asPercent(share, of)}</span>
      </span>
      <span aria-hidden className="mt-1 block h-1 bg-rule">
        <span className="block h-1 bg-soft" style={{ width: `${100 * share}%` }} />
      </span>
      <span className="sr-only">{sizeTexts.of(of)}</span>
    </div>
  );
}
