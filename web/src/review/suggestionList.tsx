import type { SuggestedAnswer } from '@yellow-thread/contract';
import type { Span } from '@yellow-thread/core/text';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useRef, type PointerEvent } from 'react';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { useKeepInView } from '../parts/keepInView.js';
import { SuggestionRow, type Asking, type RowActions } from './suggestionRow.js';
import { suggestionListTexts } from './texts.js';

/** All suggested answers in order of probability, the yellow line lying across them. */
export function SuggestionList({
  suggestions,
  code,
  codebook,
  below,
  active,
  passage,
  asking,
  showsReasons,
  actions,
  onActive,
  onThreshold,
  more,
}: {
  suggestions: SuggestedAnswer[];
  code: DrawnCode;
  codebook: DrawnCodebook;
  /** The first suggestion below the line. */
  below: number;
  active: number;
  /** Words marked in the active answer. */
  passage: Span | null;
  /** Which other code is being asked for, for the active answer. */
  asking: Asking | null;
  /** Whether it is shown why the active answer is suggested. */
  showsReasons: boolean;
  actions: RowActions;
  onActive: (at: number) => void;
  onThreshold: (threshold: number) => void;
  more: (() => unknown) | null;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  // the same function until there are others: a new one would have all rows laid out again
  const getItemKey = useCallback((index: number) => suggestions[index]!.responseId, [suggestions]);
  // eslint-disable-next-line react-hooks/incompatible-library -- the compiler is not in use
  const rows = useVirtualizer({
    count: suggestions.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 64,
    getItemKey,
    overscan: 4,
    // a row more is drawn with the next frame: drawing it within the key's own would hold up what the key did
    useFlushSync: false,
  });
  useKeepInView(rows, active);
  const items = rows.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (more && last >= suggestions.length - 20) more();
  }, [more, last, suggestions.length]);

  const dragThreshold = (event: PointerEvent) => {
    if (event.type !== 'pointerdown' && !(event.buttons & 1)) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { top } = scroller.current!.getBoundingClientRect();
    const y = event.clientY - top + scroller.current!.scrollTop;
    const at = rows.getVirtualItemForOffset(y)?.index ?? suggestions.length - 1;
    const before = suggestions[at]?.probability ?? 0;
    const after = suggestions[at + 1]?.probability ?? 0;
    onThreshold((before + after) / 2);
  };
  const lineY =
    rows.measurementsCache[below]?.start ?? (suggestions.length === 0 ? 0 : rows.getTotalSize());
  return (
    <div
      ref={scroller}
      role="feed"
      tabIndex={0}
      aria-label={suggestionListTexts.suggestions(code.name)}
      className="list outline-offset-[-2px] contain-strict"
    >
      <div className="relative w-full" style={{ height: rows.getTotalSize() + 120 }}>
        {items.map((item) => (
          <div
            key={item.key}
            ref={rows.measureElement}
            data-index={item.index}
            // what drops down from the active row lies over the rows after it
            className={`absolute inset-x-0 top-0 ${asking && item.index === active ? 'z-20' : ''}`}
            style={{ transform: `translateY(${item.start}px)` }}
          >
            <SuggestionRow
              suggestion={suggestions[item.index]!}
              code={code}
              codebook={codebook}
              above={item.index < below}
              index={item.index}
              onPick={onActive}
              active={item.index === active ? { passage, asking, showsReasons, actions } : null}
            />
          </div>
        ))}
        <div
          aria-hidden
          onPointerDown={dragThreshold}
          onPointerMove={dragThreshold}
          className="absolute inset-x-0 z-10 h-4 -translate-y-1/2 cursor-ns-resize touch-none"
          style={{ top: lineY }}
        >
          <span className="absolute inset-x-0 top-1/2 h-[3px] -translate-y-1/2 bg-thread" />
          <span className="absolute right-4 top-1/2 -translate-y-1/2 rounded bg-thread px-2 text-[12px] font-semibold text-[#23211c]">
            {suggestionListTexts.line}
          </span>
        </div>
      </div>
    </div>
  );
}
