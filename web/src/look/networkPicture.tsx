import type { WordNetwork } from '@yellow-thread/contract';
import { STITCHES } from '@yellow-thread/core/codebook';
import { useMemo, useState, type KeyboardEvent, type RefObject } from 'react';
import { stitchDrawing } from '../lib/stitches.js';
import type { NetworkLayout, PlacedWord } from './networkLayout.js';
import { networkPictureTexts } from './texts.js';
import type { useZoom } from './useZoom.js';

const THREAD = { least: 0.8, most: 5 };
const STITCH_HEIGHT = 6;
/** Of a topic's name, in a drawing that is as wide as a window usually has room for; larger in a wider one. */
const NAME = 12;
const LEGIBLE = 1000;

/** Words with the threads between those that keep company, each topic with its stitch and its name. */
export function NetworkPicture({
  network,
  layout,
  drawing,
  zoom,
  onOpen,
  onOpenLink,
  onHide,
}: {
  network: WordNetwork;
  layout: NetworkLayout;
  drawing: RefObject<SVGSVGElement | null>;
  zoom: ReturnType<typeof useZoom>;
  onOpen: (word: string) => void;
  onOpenLink: (one: string, other: string) => void;
  onHide: (word: string) => void;
}) {
  const { words, links, topics } = network;
  const placeOf = useMemo(() => new Map(layout.words.map((one) => [one.index, one])), [layout]);
  // one word is reached by Tab, the others by arrow keys
  const [current, setCurrent] = useState<number | null>(null);
  const [pointed, setPointed] = useState<number | null>(null);
  const first = layout.words.some(({ index }) => index === current)
    ? current
    : (layout.words[0]?.index ?? null);
  const lit = pointed ?? current;
  const most = Math.max(...links.map(({ answers }) => answers), 1);
  const companyOf = useMemo(() => companiesIn(network), [network]);
  const onKeyDown = (event: KeyboardEvent, word: PlacedWord) => {
    const { key } = event;
    const next = key.startsWith('Arrow') ? neighbour(layout.words, word, key) : null;
    if (next) {
      const node = drawing.current?.querySelector<SVGElement>(`[data-word="${next.index}"]`);
      node?.focus();
    } else if (key === 'Enter' || key === ' ') onOpen(words[word.index]!.word);
    else if (key === 'h' || key === 'H') onHide(words[word.index]!.word);
    else if (key === '+' || key === '=') zoom.by(1.25);
    else if (key === '-') zoom.by(0.8);
    else if (key === '0') zoom.whole();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <svg
      ref={drawing}
      role="group"
      aria-label={networkPictureTexts.name(layout.words.length, links.length)}
      viewBox={zoom.box}
      className="block h-full w-full touch-none select-none"
      style={{ cursor: zoom.isWhole ? 'default' : 'grab' }}
      {...zoom.handlers}
    >
      <Stitches topics={topics.length} />
      {links.map((link) => {
        const [one, other] = [placeOf.get(link.from), placeOf.get(link.to)];
        if (!one || !other) return null;
        const isLit = lit === link.from || lit === link.to;
        const isWithin = words[link.from]!.topic === words[link.to]!.topic;
        return (
          <line
            key={`${link.from} ${link.to}`}
            x1={one.x}
            y1={one.y}
            x2={other.x}
            y2={other.y}
            stroke={isLit ? 'var(--color-thread)' : 'var(--color-soft)'}
            strokeOpacity={isLit ? 1 : 0.35}
            strokeWidth={
              THREAD.least + (THREAD.most - THREAD.least) * Math.sqrt(link.answers / most)
            }
            strokeDasharray={isWithin ? undefined : '2 5'}
            strokeLinecap="round"
            className="cursor-pointer"
            onClick={() => onOpenLink(words[link.from]!.word, words[link.to]!.word)}
          />
        );
      })}
      {topics.map((topic, t) => {
        const its = topic.words.flatMap((word) => placeOf.get(word) ?? []);
        if (its.length === 0) return null;
        const top = Math.min(...its.map(({ y, height }) => y - height / 2));
        const middle = its.reduce((sum, { x }) => sum + x, 0) / its.length;
        return (
          <text
            key={t}
            x={middle}
            y={top - 6}
            textAnchor="middle"
            fontFamily="'Figtree Variable', sans-serif"
            fontSize={NAME * Math.max(1, layout.width / LEGIBLE)}
            fill="var(--color-soft)"
            stroke="var(--color-paper)"
            strokeWidth={4}
            paintOrder="stroke"
          >
            {topic.name}
          </text>
        );
      })}
      {layout.words.map((place) => (
        <DrawnWord
          key={place.index}
          place={place}
          word={words[place.index]!}
          company={companyOf.get(place.index) ?? ''}
          isLit={lit === place.index}
          isReached={place.index === first}
          onFocus={setCurrent}
          onPoint={setPointed}
          onOpen={onOpen}
          onKeyDown={onKeyDown}
        />
      ))}
    </svg>
  );
}

function DrawnWord({
  place,
  word: { word, answers, topic },
  company,
  isLit,
  isReached,
  onFocus,
  onPoint,
  onOpen,
  onKeyDown,
}: {
  place: PlacedWord;
  word: WordNetwork['words'][number];
  company: string;
  isLit: boolean;
  /** Whether Tab reaches it. */
  isReached: boolean;
  onFocus: (index: number | null) => void;
  onPoint: (index: number | null) => void;
  onOpen: (word: string) => void;
  onKeyDown: (event: KeyboardEvent, place: PlacedWord) => void;
}) {
  const { index, x, y, width, height, fontSize } = place;
  return (
    <g
      data-word={index}
      role="button"
      tabIndex={isReached ? 0 : -1}
      aria-label={networkPictureTexts.word(word, answers, company)}
      className="cursor-pointer outline-offset-0"
      onFocus={() => onFocus(index)}
      onBlur={() => onFocus(null)}
      onPointerEnter={() => onPoint(index)}
      onPointerLeave={() => onPoint(null)}
      onClick={() => onOpen(word)}
      onKeyDown={(event) => onKeyDown(event, place)}
    >
      <rect
        x={x - width / 2 - 3}
        y={y - height / 2}
        width={width + 6}
        height={height}
        rx={2}
        fill={isLit ? 'var(--color-wash)' : 'var(--color-paper)'}
        fillOpacity={isLit ? 1 : 0.8}
      />
      <text
        x={x}
        y={y + fontSize * 0.3}
        textAnchor="middle"
        fontFamily="'Source Serif 4 Variable', Georgia, serif"
        fontSize={fontSize}
        fill="var(--color-ink)"
      >
        {word}
      </text>
      {topic !== null && (
        <g transform={`translate(${x - width / 2} ${y + height / 2 - 5})`}>
          <rect width={width} height={STITCH_HEIGHT} fill={`url(#stitch-${topic})`} />
        </g>
      )}
    </g>
  );
}

/** By word, those that it is joined to, as they are read out. */
function companiesIn({ words, links }: WordNetwork): Map<number, string> {
  const company = new Map<number, string[]>();
  const join = (one: number, other: number) =>
    company.set(one, [...(company.get(one) ?? []), words[other]!.word]);
  for (const { from, to } of links) {
    join(from, to);
    join(to, from);
  }
  return new Map([...company].map(([word, others]) => [word, others.join(', ')]));
}

/** The nearest word in the direction of an arrow key; null where none is. */
function neighbour(words: readonly PlacedWord[], from: PlacedWord, key: string): PlacedWord | null {
  const [alongX, alongY] = {
    ArrowRight: [1, 0],
    ArrowLeft: [-1, 0],
    ArrowDown: [0, 1],
    ArrowUp: [0, -1],
  }[key] ?? [0, 0];
  let best: { word: PlacedWord; cost: number } | null = null;
  for (const word of words) {
    const [dx, dy] = [word.x - from.x, word.y - from.y];
    const ahead = dx * alongX! + dy * alongY!;
    if (word === from || ahead <= 1) continue;
    const aside = Math.abs(dx * alongY!) + Math.abs(dy * alongX!);
    const cost = ahead + 2 * aside;
    if (!best || cost < best.cost) best = { word, cost };
  }
  return best?.word ?? null;
}

/** A stitch for each topic. */
const Stitches = ({ topics }: { topics: number }) => (
  <defs>
    {Array.from({ length: topics }, (_, topic) => (
      <pattern
        key={topic}
        id={`stitch-${topic}`}
        patternUnits="userSpaceOnUse"
        width={12}
        height={STITCH_HEIGHT}
      >
        <path
          d={stitchDrawing(STITCHES[topic % STITCHES.length]!)}
          fill="none"
          stroke="var(--color-soft)"
          strokeWidth={1.3}
          strokeLinecap="round"
        />
      </pattern>
    ))}
  </defs>
);
