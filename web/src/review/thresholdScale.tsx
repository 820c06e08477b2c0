import { thresholdForPrecision, type Outlook } from '@yellow-thread/core/review';
import { memo, useMemo, useRef, type PointerEvent } from 'react';
import { toast } from 'sonner';
import { thresholdScaleTexts } from './texts.js';

const BINS = 40;

/** The scale of probability with the open suggestions on it; the line is dragged or stepped along it. */
export function ThresholdScale({
  outlook,
  byHand,
  threshold,
  wanted,
  onThreshold,
  onWanted,
}: {
  outlook: Outlook;
  /** What the model said of answers to which people gave the code, before it knew them. */
  byHand: readonly number[];
  threshold: number;
  /** The share right that one wants of what is accepted in bulk. */
  wanted: number;
  onThreshold: (threshold: number) => void;
  onWanted: (wanted: number) => void;
}) {
  const { probabilities } = outlook;
  const layFor = (share: number) => {
    const to = thresholdForPrecision(outlook, share);
    if (to === null) toast(thresholdScaleTexts.noLineExpectedRight(share));
    else onThreshold(to);
  };
  const scale = useRef<HTMLDivElement>(null);
  const drag = (event: PointerEvent) => {
    if (event.type !== 'pointerdown' && !(event.buttons & 1)) return;
    const { top, height } = scale.current!.getBoundingClientRect();
    scale.current!.setPointerCapture(event.pointerId);
    onThreshold(Math.min(1, Math.max(0, 1 - (event.clientY - top) / height)));
  };
  // neither these nor the marks change while the line is dragged
  const bins = useMemo(() => {
    const counts = new Array<number>(BINS).fill(0);
    for (const p of probabilities) counts[Math.min(BINS - 1, Math.floor(p * BINS))]! += 1;
    return counts;
  }, [probabilities]);
  const fullest = Math.max(1, ...bins);
  const step = (event: { key: string; preventDefault: () => void }) => {
    const steps: Record<string, number> = {
      ArrowUp: 0.01,
      ArrowRight: 0.01,
      ArrowDown: -0.01,
      ArrowLeft: -0.01,
      PageUp: 0.1,
      PageDown: -0.1,
    };
    const by = steps[event.key];
    const to = event.key === 'Home' ? 0 : event.key === 'End' ? 1 : by && threshold + by;
    if (to === undefined) return false;
    event.preventDefault();
    onThreshold(Math.min(1, Math.max(0, to)));
    return true;
  };
  return (
    <div className="flex flex-col border-r border-rule px-3 py-4">
      <span className="figures text-center text-[12px] text-soft">{thresholdScaleTexts.sure}</span>
      <div
        ref={scale}
        onPointerDown={drag}
        onPointerMove={drag}
        className="relative my-1 min-h-0 flex-1 cursor-ns-resize touch-none"
      >
        <span aria-hidden className="absolute inset-y-0 left-0 w-px bg-rule" />
        {bins.map((count, bin) => (
          <span
            key={bin}
            aria-hidden
            className={`absolute left-0 ${(bin + 0.5) / BINS >= threshold ? 'bg-soft' : 'bg-rule'}`}
            style={{
              bottom: `${(100 * bin) / BINS}%`,
              height: `calc(${100 / BINS}% - 1px)`,
              width: `${(36 * Math.sqrt(count)) / Math.sqrt(fullest)}px`,
            }}
          />
        ))}
        <span className="sr-only">
          {thresholdScaleTexts.answersCodedHandThem(
            byHand.length,
            byHand.filter((p) => p >= threshold).length,
          )}
        </span>
        <ByHandMarks byHand={byHand} />
        <div
          role="slider"
          tabIndex={0}
          aria-label={thresholdScaleTexts.line}
          aria-orientation="vertical"
          aria-valuemin={0}
          aria-valuemax={1}
          aria-valuenow={Number(threshold.toFixed(2))}
          aria-valuetext={thresholdScaleTexts.trust(threshold)}
          onKeyDown={(event) => {
            if (step(event)) event.stopPropagation();
          }}
          className="absolute inset-x-0 h-4"
          style={{ bottom: `calc(${100 * threshold}% - 8px)` }}
        >
          <span className="absolute inset-x-0 top-[6.5px] h-[3px] bg-thread" />
          <span className="absolute -right-1 top-px size-[14px] rounded-full border-2 border-ink bg-thread" />
        </div>
      </div>
      <span className="text-center text-[12px] text-soft">{thresholdScaleTexts.unsure}</span>
      <span
        className="-mx-2 mt-1 whitespace-nowrap text-center text-[11px] leading-4 text-soft"
        title={thresholdScaleTexts.whereAnswersPeopleGave}
      >
        <span aria-hidden className="mr-1 inline-block size-[5px] rounded-full bg-ink opacity-40" />
        {thresholdScaleTexts.hand}
      </span>
      <label className="mt-3 flex flex-col items-center text-[12px] leading-4 text-soft">
        {thresholdScaleTexts.wantedRight}
        <input
          type="number"
          min={0}
          max={1}
          step={0.01}
          defaultValue={wanted}
          title={thresholdScaleTexts.acceptingFewerRightAsks}
          className="figures mt-0.5 w-14 rounded border border-rule bg-card px-1 py-0.5 text-center text-ink"
          onKeyDown={(event) => {
            const to = event.currentTarget.valueAsNumber;
            if (event.key === 'Enter' && to >= 0 && to <= 1) layFor(to);
          }}
          onChange={(event) => {
            const to = event.currentTarget.valueAsNumber;
            if (to >= 0 && to <= 1) onWanted(to);
          }}
        />
      </label>
    </div>
  );
}

const ByHandMarks = memo(({ byHand }: { byHand: readonly number[] }) =>
  byHand.map((p, at) => (
    <span
      key={at}
      aria-hidden
      className="absolute right-0 size-[5px] translate-y-1/2 rounded-full bg-ink opacity-40"
      style={{ bottom: `${100 * p}%` }}
    />
  )),
);
ByHandMarks.displayName = 'ByHandMarks';
