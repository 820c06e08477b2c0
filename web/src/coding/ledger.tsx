import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useMemo, useRef, useState } from 'react';
import { nameIn } from '../data/background.js';
import { useFrequentCodes, type SeenCodebook } from '../data/codebook.js';
import { BLOCK, useAnswers, useCode } from '../data/coding.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { useKeepInView } from '../parts/keepInView.js';
import { useIsSettled } from '../parts/useIsSettled.js';
import { LedgerAnswerRow } from './ledgerAnswer.js';
import type { LedgerFilter } from './ledgerFilter.js';
import { useLedgerPosition, type LedgerCell } from './useLedgerPosition.js';
import { useFocusOnTyping } from './useFocusOnTyping.js';
import { ledgerTexts } from './texts.js';

interface LedgerProps {
  ids: readonly number[];
  /** How many answers have the same words as each; null when they are listed one by one. */
  counts: readonly number[] | null;
  /** Ids of answers that are nearly the same as the one before them. */
  near: readonly number[] | null;
  codebook: SeenCodebook;
  filter: LedgerFilter;
  /** Whether answers are read one by one with what the models propose. */
  isReading: boolean;
}

const nothingPressed: ReadonlySet<string> = new Set();

/** Under the active answer hang the codes found. */
const room = { above: 8, below: 230 };

/** Answers down the page, however many: only those near the window are fetched and drawn. */
export function Ledger({ ids, counts, near, codebook, filter, isReading }: LedgerProps) {
  const { study, question } = useStudyLocation();
  const change = useCode(study.id, question.id);
  const scroller = useRef<HTMLDivElement>(null);
  const isNear = useMemo(() => new Set(near), [near]);
  /** By answer, the codes of which the digit was pressed. */
  const [toggled, setToggled] = useState<ReadonlyMap<number, ReadonlySet<string>>>(new Map());
  const toggle = useCallback(
    (answer: number, codeId: string) =>
      setToggled((before) => {
        const its = new Set(before.get(answer));
        if (!its.delete(codeId)) its.add(codeId);
        return new Map(before).set(answer, its);
      }),
    [],
  );
  const frequent = useFrequentCodes(study.id, question.id);
  const [lifted, setLifted] = useState<string | null>(null);
  // the same function every time: a new one would lay out all 100,000 rows again
  const getItemKey = useCallback((index: number) => ids[index]!, [ids]);
  // eslint-disable-next-line react-hooks/incompatible-library -- the compiler is not in use
  const rows = useVirtualizer({
    count: ids.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 92,
    getItemKey,
    overscan: 4,
    scrollPaddingStart: room.above,
    scrollPaddingEnd: room.below,
  });
  const items = rows.getVirtualItems();
  const [place, goTo] = useState<LedgerCell>({ answer: 0, line: 0, passage: null });
  const first = Math.floor((items[0]?.index ?? 0) / BLOCK);
  const last = Math.floor(Math.min(ids.length - 1, (items.at(-1)?.index ?? 0) + 20) / BLOCK);
  const isAtRest = useIsSettled(`${first} ${last}`);
  const around = [Math.floor(place.answer / BLOCK), Math.floor((place.answer + 1) / BLOCK)];
  const blocks = new Set(around);
  for (let block = first; block <= last; block++) blocks.add(block);
  const answers = useAnswers({
    study: study.id,
    question: question.id,
    ids,
    blocks: [...blocks].filter((block) => block * BLOCK < ids.length).sort((x, y) => x - y),
    isWanted: (block) => isAtRest || around.includes(block),
  });
  const answerAt = useCallback((index: number) => answers.get(ids[index] ?? 0), [answers, ids]);
  const position = useLedgerPosition(place, goTo, ids.length, answerAt, study.asides);
  const typedAheadRef = useFocusOnTyping(scroller, position, answerAt(place.answer) !== undefined);
  useKeepInView(rows, place.answer, room);
  const shown = study.variables.filter((one) => one.kind === 'category').slice(0, 3);
  return (
    <div ref={scroller} role="feed" aria-label={ledgerTexts.answers} className="list">
      <div className="relative w-full" style={{ height: rows.getTotalSize() + 240 }}>
        {items.map((item) => {
          const answer = answerAt(item.index);
          return (
            <div
              key={item.key}
              ref={rows.measureElement}
              data-index={item.index}
              // the codes found hang over the answers below
              className={`absolute inset-x-0 top-0 ${item.index === place.answer ? 'z-10' : ''}`}
              style={{ transform: `translateY(${item.start}px)` }}
            >
              {answer ? (
                <LedgerAnswerRow
                  answer={answer}
                  about={[
                    answer.externalId,
                    ...shown.map((variable) => nameIn(variable, answer.background)),
                  ]
                    .filter((name) => name !== '')
                    .join(' · ')}
                  count={counts?.[item.index] ?? 1}
                  before={isNear.has(answer.id) ? (answerAt(item.index - 1) ?? null) : null}
                  codebook={codebook}
                  place={item.index === place.answer ? place : null}
                  index={item.index}
                  total={ids.length}
                  position={item.index === place.answer ? position : null}
                  goTo={goTo}
                  lifted={lifted}
                  onLift={setLifted}
                  offersNothing={filter.show === 'nothing_likely'}
                  frequent={isReading ? frequent : null}
                  toggled={toggled.get(answer.id) ?? nothingPressed}
                  onToggle={toggle}
                  words={filter.words}
                  match={filter.match}
                  typedAheadRef={typedAheadRef}
                  onChange={change}
                />
              ) : (
                // keeps its space while it is fetched
                <div aria-hidden className="h-[92px] border-b border-rule" />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}
