import type { Review } from '@yellow-thread/contract';
import { measureAtThreshold, measureCalibration } from '@yellow-thread/core/review';
import { useMemo } from 'react';
import { thresholdChartTexts } from './texts.js';

const [width, height] = [100, 78];
const [left, top, foot] = [4, 6, 62];
const x = (p: number) => left + (width - 2 * left) * p;
const y = (share: number) => foot - (foot - top) * share;
const lines = Array.from({ length: 51 }, (_, i) => i / 50);

/** How right and how complete the suggestions would have been at every line, and whether what was said came true. */
export function ThresholdChart({
  unseen,
  threshold,
}: {
  unseen: Review['unseen'];
  threshold: number;
}) {
  const measured = useMemo(() => lines.map((at) => measureAtThreshold(unseen, at)), [unseen]);
  const calibration = useMemo(() => measureCalibration(unseen), [unseen]);
  if (unseen.yes.length === 0) return null;
  const at = measured[Math.round(threshold * 50)]!;
  const path = (values: (number | null)[]) =>
    values.flatMap((value, i) => (value === null ? [] : [`${x(lines[i]!)} ${y(value)}`])).join('L');
  return (
    <div className="flex gap-3">
      <figure>
        <svg
          role="img"
          aria-label={thresholdChartTexts.precisionRecallMeasuredSettled(
            threshold,
            at.precision,
            at.recall,
          )}
          width={width}
          height={height}
        >
          <path d={`M${x(0)} ${y(0)}H${x(1)}`} className="stroke-rule" />
          <path
            d={`M${path(measured.map((one) => one.precision))}`}
            className="fill-none stroke-ink"
            strokeWidth="1.5"
          />
          <path
            d={`M${path(measured.map((one) => one.recall))}`}
            className="fill-none stroke-soft"
            strokeWidth="1.5"
            strokeDasharray="3 2"
          />
          <path
            d={`M${x(threshold)} ${y(1) - 3}V${y(0) + 3}`}
            className="stroke-thread"
            strokeWidth="2.5"
          />
        </svg>
        <figcaption className="-mt-4 text-[11px] text-soft">
          {thresholdChartTexts.precision} <Dash /> {thresholdChartTexts.recall} <Dash dashed />{' '}
          {thresholdChartTexts.eachLine}
        </figcaption>
      </figure>
      <figure>
        <svg
          role="img"
          aria-label={thresholdChartTexts.howOftenEachProbability(
            calibration.map((one) => thresholdChartTexts.ofThoseAt(one.found, one.said)).join('; '),
          )}
          width={width}
          height={height}
        >
          <path d={`M${x(0)} ${y(0)}L${x(1)} ${y(1)}`} className="stroke-rule" />
          {calibration.map((one) => (
            <circle
              key={one.said}
              cx={x(one.said)}
              cy={y(one.found)}
              r={2 + 4 * Math.sqrt(one.share)}
              className="fill-ink"
            />
          ))}
        </svg>
        <figcaption className="-mt-4 text-[11px] text-soft">
          {thresholdChartTexts.howOftenEachProbabilityRight}
        </figcaption>
      </figure>
    </div>
  );
}

const Dash = ({ dashed = false }: { dashed?: boolean }) => (
  <svg aria-hidden width="14" height="6" className="inline">
    <path
      d="M0 3H14"
      className={dashed ? 'stroke-soft' : 'stroke-ink'}
      strokeWidth="1.5"
      strokeDasharray={dashed ? '3 2' : undefined}
    />
  </svg>
);
