import type { Trained } from '@yellow-thread/contract';
import { asShare } from '../lib/numbers.js';
import { curveTexts } from './texts.js';

const signed = (value: number) => `${value < 0 ? '−' : '+'}${asShare(Math.abs(value))}`;

/** What so many more settled answers would likely add, in words. */
export function gainWords({ gain }: Pick<Trained, 'gain'>): string {
  if (!gain) return curveTexts.known;
  const [low, high] = gain.interval;
  return curveTexts.to(signed(gain.value), signed(low), signed(high));
}

/** How good the model was with a quarter, half … of what it learnt from, as a small line. */
export function Curve({ code, wide = false }: { code: Trained; wide?: boolean }) {
  const { curve, gain } = code;
  if (curve.length === 0) return <span className="text-soft">–</span>;
  const [width, height] = wide ? [400, 140] : [64, 20];
  const last = curve.at(-1)!;
  const most = last.answers + (gain?.answers ?? 0);
  const x = (answers: number) => 3 + ((width - 6) * answers) / most;
  // room for the figure over the highest point, and for the numbers of answers
  const [top, foot] = wide ? [24, 20] : [3, 3];
  const y = (value: number) => height - foot - (height - foot - top) * value;
  const line = curve.map((one) => `${x(one.answers)} ${y(one.averagePrecision)}`).join('L');
  const said = curve.map((one) => curveTexts.answers(one.averagePrecision, one.answers)).join(', ');
  const next = last.averagePrecision + (gain?.value ?? 0);
  return (
    <svg
      role="img"
      aria-label={curveTexts.averagePrecisionMore(said, gain?.answers, gainWords(code))}
      width={wide ? undefined : width}
      height={wide ? undefined : height}
      viewBox={`0 0 ${width} ${height}`}
      className={wide ? 'w-full' : 'shrink-0'}
    >
      <path d={`M3 ${y(0) + 0.5}H${width - 3}`} className="stroke-rule" />
      {gain && wide && (
        <path
          d={`M${x(last.answers)} ${y(last.averagePrecision)}L${x(most)} ${y(Math.min(1, last.averagePrecision + gain.interval[1]))}V${y(last.averagePrecision + gain.interval[0])}Z`}
          className="fill-rule"
        />
      )}
      {gain && (
        <path
          d={`M${x(last.answers)} ${y(last.averagePrecision)}L${x(most)} ${y(next)}`}
          className="stroke-soft"
          strokeDasharray="2 2"
        />
      )}
      <path d={`M${line}`} className="fill-none stroke-ink" strokeWidth="1.5" />
      {wide &&
        curve.map((one) => (
          <g key={one.answers}>
            <circle cx={x(one.answers)} cy={y(one.averagePrecision)} r="3" className="fill-ink" />
            <text
              x={x(one.answers)}
              y={y(one.averagePrecision) - 8}
              textAnchor="middle"
              className="figures fill-soft text-[12px]"
            >
              {asShare(one.averagePrecision)}
            </text>
            <text
              x={x(one.answers)}
              y={height - 5}
              textAnchor="middle"
              className="figures fill-soft text-[11px]"
            >
              {one.answers}
            </text>
          </g>
        ))}
      {gain && wide && (
        <text x={x(most)} y={height - 5} textAnchor="end" className="figures fill-soft text-[11px]">
          +{gain.answers}
        </text>
      )}
    </svg>
  );
}
