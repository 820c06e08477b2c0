import { asShare, isOfNothing } from '../lib/numbers.js';
import { rangeTexts } from './texts.js';

/** A measured share as a dot on a scale from 0 to 1, or to less, with its interval as a line. */
export function ShareRange({
  value,
  interval,
  label,
  most = 1,
}: {
  value: number;
  interval: readonly [number, number];
  label: string;
  /** Where the scale ends. */
  most?: number;
}) {
  const [low, high] = interval;
  const isMeasured = !isOfNothing(interval);
  const x = (share: number) => 4 + (share / most) * 92;
  return (
    <span className="inline-flex items-center gap-2 align-middle">
      <svg
        role="img"
        aria-label={
          isMeasured
            ? rangeTexts.between(label, value, low, high)
            : rangeTexts.nothingMeasure(label)
        }
        width="100"
        height="16"
        viewBox="0 0 100 16"
      >
        <path d="M4 8h92" className="stroke-rule" strokeWidth="1" />
        {isMeasured && (
          <>
            <path d={`M${x(low)} 8H${x(high)}`} className="stroke-soft" strokeWidth="3" />
            <circle cx={x(value)} cy="8" r="4" className="fill-ink stroke-card" strokeWidth="1" />
          </>
        )}
      </svg>
      <span className="figures w-8 text-right">{isMeasured ? asShare(value) : '–'}</span>
    </span>
  );
}
