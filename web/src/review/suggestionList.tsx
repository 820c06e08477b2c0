import type { Decision, SuggestedAnswer } from '@yellow-thread/contract';
import { splitAtPassages } from '@yellow-thread/core/coding';
import { blankAsides, findAsides, splitWords } from '@yellow-thread/core/text';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, type PointerEvent } from 'react';
import type { DrawnCode } from '../data/codebook.js';
import { usePlace } from '../frame/place.js';
import { Knot } from '../parts/knot.js';
import { asShare } from '../parts/numbers.js';

/** All suggested answers in order of probability, the yellow line lying across them. */
export function SuggestionList({
  suggestions,
  code,
  below,
  active,
  onActive,
  onDecide,
  onLine,
  more,
}: {
  suggestions: SuggestedAnswer[];
  code: DrawnCode;
  /** The first suggestion below the line. */
  below: number;
  active: number;
  onActive: (at: number) => void;
  onDecide: (at: number, state: Decision) => void;
  onLine: (line: number) => void;
  more: (() => unknown) | null;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the compiler is not in use
  const rows = useVirtualizer({
    count: suggestions.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 64,
    getItemKey: (index) => suggestions[index]!.responseId,
    overscan: 8,
  });
  useEffect(() => {
    rows.scrollToIndex(active, { align: 'auto' });
  }, [rows, active]);
  const items = rows.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (more && last >= suggestions.length - 20) more();
  }, [more, last, suggestions.length]);

  const dragLine = (event: PointerEvent) => {
    if (event.type !== 'pointerdown' && !(event.buttons & 1)) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { top } = scroller.current!.getBoundingClientRect();
    const y = event.clientY - top + scroller.current!.scrollTop;
    const at = rows.getVirtualItemForOffset(y)?.index ?? suggestions.length - 1;
    const before = suggestions[at]?.probability ?? 0;
    const after = suggestions[at + 1]?.probability ?? 0;
    onLine((before + after) / 2);
  };
  const lineY =
    rows.measurementsCache[below]?.start ?? (suggestions.length === 0 ? 0 : rows.getTotalSize());
  return (
    <div
      ref={scroller}
      role="feed"
      tabIndex={0}
      aria-label={`Suggestions of ${code.name}`}
      className="min-h-0 overflow-y-auto outline-offset-[-2px]"
    >
      <div className="relative w-full" style={{ height: rows.getTotalSize() + 120 }}>
        {items.map((item) => (
          <div
            key={item.key}
            ref={rows.measureElement}
            data-index={item.index}
            className="absolute inset-x-0 top-0"
            style={{ transform: `translateY(${item.start}px)` }}
          >
            <SuggestionRow
              suggestion={suggestions[item.index]!}
              active={item.index === active}
              above={item.index < below}
              onPick={() => onActive(item.index)}
              onDecide={(state) => onDecide(item.index, state)}
            />
          </div>
        ))}
        <div
          aria-hidden
          onPointerDown={dragLine}
          onPointerMove={dragLine}
          className="absolute inset-x-0 z-10 h-4 -translate-y-1/2 cursor-ns-resize touch-none"
          style={{ top: lineY }}
        >
          <span className="absolute inset-x-0 top-1/2 h-[3px] -translate-y-1/2 bg-thread" />
          <span className="absolute right-4 top-1/2 -translate-y-1/2 rounded bg-thread px-2 text-[12px] font-semibold text-[#23211c]">
            the line
          </span>
        </div>
      </div>
    </div>
  );
}

function SuggestionRow({
  suggestion,
  active,
  above,
  onPick,
  onDecide,
}: {
  suggestion: SuggestedAnswer;
  active: boolean;
  above: boolean;
  onPick: () => void;
  onDecide: (state: Decision) => void;
}) {
  const { state, bulk, probability } = suggestion;
  const words = state === 'open' ? 'open' : `${state}${bulk ? ' in bulk' : ''}`;
  const act = 'rounded border border-rule bg-card px-2 py-0.5 text-[13px] hover:border-soft';
  return (
    <article
      aria-current={active ? 'true' : undefined}
      onPointerDown={onPick}
      className={`relative grid grid-cols-[52px_minmax(0,1fr)_150px] items-start gap-x-4 border-b border-rule px-5 py-2.5 ${active ? 'bg-card' : ''}`}
    >
      {active && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-thread" />}
      <span className="figures pt-1 text-right text-soft">{asShare(probability)}</span>
      <p className={`voice max-w-[44rem] break-words ${above ? '' : 'text-soft'}`}>
        <Evidence suggestion={suggestion} />
      </p>
      <span className="flex items-center justify-end gap-2 pt-1">
        {active ? (
          <span className="flex gap-1">
            {state !== 'accepted' && (
              <button
                type="button"
                tabIndex={-1}
                className={act}
                onClick={() => onDecide('accepted')}
              >
                accept
              </button>
            )}
            {state !== 'refused' && (
              <button
                type="button"
                tabIndex={-1}
                className={act}
                onClick={() => onDecide('refused')}
              >
                refuse
              </button>
            )}
            {state !== 'open' && (
              <button type="button" tabIndex={-1} className={act} onClick={() => onDecide('open')}>
                open
              </button>
            )}
          </span>
        ) : (
          state !== 'open' && <span className="text-[13px] text-soft">{words}</span>
        )}
        <Knot state={state} label={words} />
      </span>
    </article>
  );
}

/** The answer with the words that led to the suggestion underlined, the stronger the thicker. */
function Evidence({ suggestion: { text, evidence } }: { suggestion: SuggestedAnswer }) {
  const { asides } = usePlace().study;
  const parts = useMemo(() => {
    const weights = new Map(evidence.map((one) => [one.word, one.weight]));
    const strongest = Math.max(...weights.values(), 0);
    // the interviewer's words lead to nothing
    const words = splitWords(blankAsides(text, asides)).flatMap(({ form, start, end }) => {
      const weight = weights.get(form);
      return weight === undefined ? [] : [{ start, end, strength: weight / strongest }];
    });
    const said = findAsides(text, asides).map((aside) => ({ ...aside, strength: 0 }));
    return splitAtPassages({ start: 0, end: text.length }, [...words, ...said]);
  }, [text, evidence, asides]);
  return parts.map(({ start, end, passages: [mark] }) => {
    const part = text.slice(start, end);
    if (!mark) return <span key={start}>{part}</span>;
    if (mark.strength === 0)
      return (
        <span key={start} className="text-soft">
          {part}
        </span>
      );
    return (
      <span
        key={start}
        className="underline decoration-current underline-offset-4"
        style={{ textDecorationThickness: `${Math.max(0.6, 3.2 * mark.strength)}px` }}
      >
        {part}
      </span>
    );
  });
}
