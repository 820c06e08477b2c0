import { asShare, isOfNothing } from '../lib/numbers.js';
import { rangeTexts } from './texts.js';

type Interval = readonly [number, number];

interface RangeMarkProps {
  value: number;
  /** Null where nothing was measured. */
  interval: Interval | null;
  /** Where the scale ends. */
  most?: number;
  /** In pixels. */
  width?: number;
  /** What is read aloud; left out where the figures stand beside it. */
  label?: string;
}

const HEIGHT = 16;
const MARGIN = 4;

/** A share as a dot on a scale from 0, with its interval as a line. */
export function RangeMark({ value, interval, most = 1, width = 100, label }: RangeMarkProps) {
  const x = (share: number) => MARGIN + (share / most) * (width - 2 * MARGIN);
  return (
    <svg
      {...(label === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label })}
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="shrink-0"
    >
      <path d={`M${x(0)} 8H${x(most)}`} className="stroke-rule" strokeWidth="1" />
      {interval && (
        <>
          <path
            d={`M${x(interval[0])} 8H${x(interval[1])}`}
            className="stroke-soft"
            strokeWidth="3"
          />
          <circle cx={x(value)} cy="8" r="4" className="fill-ink stroke-card" strokeWidth="1" />
        </>
      )}
    </svg>
  );
}

/** A measured share as a dot on a scale from 0 to 1, or to less, with its interval as a line, and in figures. */
export function ShareRange({
  value,
  interval,
  label,
  most = 1,
}: {
  value: number;
  interval: Interval;
  label: string;
  /** Where the scale ends. */
  most?: number;
}) {
  const isMeasured = !isOfNothing(interval);
  const spoken = isMeasured
    ? rangeTexts.between(label, value, ...interval)
    : rangeTexts.nothingMeasure(label);
  return (
    <span className="inline-flex items-center gap-2 align-middle">
      <RangeMark {...{ value, most, interval: isMeasured ? interval : null, label: spoken }} />
      <span className="figures w-8 text-right">{isMeasured ? asShare(value) : '–'}</span>
    </span>
  );
}
