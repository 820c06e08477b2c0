import type { Mention } from '@yellow-thread/contract';
import { splitAtPassages } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import { useRef, type CSSProperties, type ReactNode } from 'react';
import type { DrawnCodebook } from '../data/codebook.js';
import { stitchImage } from '../parts/stitches.js';
import { ledgerGrid } from './ledgerGrid.js';
import { readSelection } from './readSelection.js';
import { Threads } from './threads.js';

/** One line of an answer, its passages stitched, its codes in the same row. */
export function LedgerLine({
  text,
  line,
  asides,
  mentions,
  codebook,
  active,
  passage,
  lifted,
  onPlace,
  children,
}: {
  text: string;
  line: Span;
  /** The interviewer's words: shown dimmed. */
  asides: Span[];
  mentions: Mention[];
  codebook: DrawnCodebook;
  active: boolean;
  passage: Span | null;
  lifted: string | null;
  onPlace: (passage: Span | null) => void;
  children: ReactNode;
}) {
  const row = useRef<HTMLDivElement>(null);
  const passages = mentions.flatMap((mention) => {
    const { start, end, id, codeId } = mention;
    const look = codebook.byId.get(codeId)?.look;
    return start === null || end === null || !look ? [] : [{ id, start, end, look }];
  });
  const marks = [
    ...passages,
    ...(passage ? [{ ...passage, id: 'marked', look: null }] : []),
    ...asides.map((aside) => ({ ...aside, id: 'aside', look: null })),
  ];
  return (
    <div
      ref={row}
      className={`relative ${ledgerGrid} rounded ${active && !passage ? 'bg-wash' : ''}`}
    >
      <p
        className="voice cursor-text whitespace-pre-wrap break-words"
        onPointerUp={() => onPlace(row.current ? readSelection(row.current) : null)}
      >
        {splitAtPassages(line, marks).map((segment) => {
          const stitched = segment.passages.filter((one) => one.look !== null);
          const marked = segment.passages.some((one) => one.id === 'marked');
          const isAside = segment.passages.some((one) => one.id === 'aside');
          const isLifted = segment.passages.some((one) => one.id === lifted);
          return (
            <span
              key={segment.start}
              data-start={segment.start}
              data-passages={segment.passages.map((one) => one.id).join(' ')}
              className={`box-decoration-clone ${isAside ? 'text-soft' : ''} ${marked || isLifted ? 'bg-wash' : ''} ${marked ? 'outline outline-1 outline-thread' : ''}`}
              style={underline(stitched.map((one) => stitchImage(one.look)))}
            >
              {text.slice(segment.start, segment.end)}
            </span>
          );
        })}
      </p>
      <div className="flex flex-col items-start pt-0.5">{children}</div>
      <Threads passages={passages} lifted={lifted} />
    </div>
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
