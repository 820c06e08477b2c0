import type { Mention, ShownNote } from '@yellow-thread/contract';
import { splitAtPassages } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import { useCallback, useRef, type CSSProperties, type ReactNode } from 'react';
import type { SeenCodebook } from '../data/codebook.js';
import { useDraggable, useDropTarget, useMergedRefs, type Dragged } from '../parts/dragAndDrop.js';
import { stitchImage, type Look } from '../lib/stitches.js';
import { ledgerGrid } from './ledgerGrid.js';
import { readSelection } from '../parts/readSelection.js';
import { Threads } from './threads.js';

/** What lies over some characters of a line. */
interface Mark extends Span {
  id: string;
  kind: 'stitched' | 'marked' | 'aside' | 'hit' | 'noted';
  look: Look | null;
}

/** One line of an answer, its passages stitched, its codes in the same row. */
export function LedgerLine({
  responseId,
  text,
  line,
  asides,
  hits,
  notes,
  mentions,
  codebook,
  active,
  passage,
  lifted,
  onLift,
  onPlace,
  onMenu,
  onCode,
  children,
}: {
  responseId: number;
  text: string;
  line: Span;
  /** The interviewer's words: shown dimmed. */
  asides: Span[];
  /** Where words that are looked for stand. */
  hits: Span[];
  notes: ShownNote[];
  /** All that lie in the line, wherever they begin. */
  mentions: readonly Mention[];
  codebook: SeenCodebook;
  active: boolean;
  /** The words that are marked in the answer. */
  passage: Span | null;
  lifted: string | null;
  onLift: (mention: string | null) => void;
  onPlace: (passage: Span | null) => void;
  /** What can be done at the line, or at words of it, is asked for. */
  onMenu: (passage: Span | null) => void;
  /** A code was dropped on the line, or on the passage that is marked in it. */
  onCode: (codeId: string, passage: Span) => void;
  children: ReactNode;
}) {
  const row = useRef<HTMLElement>(null);
  const setRow = useCallback((element: HTMLElement | null) => {
    row.current = element;
  }, []);
  const passages = mentions.flatMap((mention) => {
    const { start, end, id, codeId } = mention;
    const look = codebook.byId.get(codeId)?.look;
    return start === null || end === null || !look
      ? []
      : [{ id, start, end, look, kind: 'stitched' as const }];
  });
  const plain = (kind: Mark['kind']) => (span: Span) => ({
    start: span.start,
    end: span.end,
    look: null,
    id: kind,
    kind,
  });
  const marks: Mark[] = [
    ...passages,
    ...(passage ? [plain('marked')(passage)] : []),
    ...asides.map(plain('aside')),
    ...hits.map(plain('hit')),
    ...notes.flatMap(({ start, end }) =>
      start === null || end === null ? [] : [plain('noted')({ start, end })],
    ),
  ];
  const isMarked = passage !== null && passage.start < line.end && passage.end > line.start;
  /** Follows the pointer wherever it goes, and reads off what it has marked where it lets go. */
  const markUntilUp = () =>
    window.addEventListener(
      'pointerup',
      () => {
        const answer = row.current?.closest('article');
        if (answer) onPlace(readSelection(answer));
      },
      { once: true },
    );
  const [target, isOver] = useDropTarget('code', ({ codeId }) =>
    onCode(codeId, isMarked ? passage : line),
  );
  return (
    <div
      ref={useMergedRefs(setRow, target)}
      className={`relative ${ledgerGrid} rounded ${isOver || (active && !isMarked) ? 'bg-wash' : ''}`}
    >
      <p
        className="voice cursor-text whitespace-pre-wrap break-words"
        onContextMenu={(event) => {
          event.preventDefault();
          const answer = row.current?.closest('article');
          onMenu((answer && readSelection(answer)) ?? (isMarked ? passage : null));
        }}
        onPointerDown={(event) => {
          if (event.button === 0) markUntilUp();
        }}
      >
        {splitAtPassages(line, marks).map((segment) => {
          const has = (kind: Mark['kind']) => segment.passages.some((one) => one.kind === kind);
          return (
            <SegmentText
              key={segment.start}
              segment={segment}
              dragged={has('marked') && passage ? { responseId, ...passage } : null}
              lifted={lifted}
              onLift={onLift}
            >
              {text.slice(segment.start, segment.end)}
            </SegmentText>
          );
        })}
      </p>
      <div className="flex flex-col items-start pt-0.5">{children}</div>
      <Threads passages={passages} lifted={lifted} />
    </div>
  );
}

/** A run of characters that lie in the same passages. */
function SegmentText({
  segment,
  dragged,
  lifted,
  onLift,
  children,
}: {
  segment: { start: number; passages: readonly Mark[] };
  /** The selected words that it is part of, to be dragged onto a code. */
  dragged: Dragged['words'] | null;
  lifted: string | null;
  onLift: (mention: string | null) => void;
  children: string;
}) {
  const ref = useDraggable('words', dragged);
  const { start, passages } = segment;
  const has = (kind: Mark['kind']) => passages.some((one) => one.kind === kind);
  const looks = passages.flatMap((one) => (one.look ? [one.look] : []));
  const isLifted = passages.some((one) => one.id === lifted);
  return (
    <span
      ref={ref}
      data-start={start}
      onPointerEnter={() => {
        const stitched = passages.find((one) => one.kind === 'stitched');
        if (stitched) onLift(stitched.id);
      }}
      onPointerLeave={() => onLift(null)}
      data-passages={passages.map((one) => one.id).join(' ')}
      className={[
        'box-decoration-clone',
        has('aside') ? 'text-soft' : '',
        has('marked') || isLifted ? 'bg-wash' : '',
        has('marked') ? 'outline outline-1 outline-thread' : '',
        has('hit') ? 'font-semibold' : '',
        has('noted') ? 'border-x border-dotted border-soft bg-wash' : '',
      ].join(' ')}
      style={underline(looks.map((look) => stitchImage(look)))}
    >
      {children}
    </span>
  );
}

/** Stitches under a run of characters, one below the other where passages overlap. */
function underline(images: string[]): CSSProperties | undefined {
  if (images.length === 0) return undefined;
  return {
    backgroundImage: images.join(', '),
    backgroundRepeat: 'repeat-x',
    backgroundPosition: images
      .map((_, i) => `left bottom ${4 * (images.length - 1 - i)}px`)
      .join(', '),
    paddingBottom: 1 + 4 * images.length,
  };
}
