import { ledgerShowSchema, type LedgerShow } from '@yellow-thread/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useDrawnCodebook } from '../data/codebook.js';
import { useLedger } from '../data/coding.js';
import { useKeyHelp } from '../frame/keys.js';
import { nameIn } from '../data/background.js';
import { usePlace } from '../frame/place.js';
import { inputBox } from '../parts/field.js';
import { EmptyState, ProblemNote, Waiting } from '../parts/notices.js';
import { asCount, counted } from '../parts/numbers.js';
import { LedgerAnswerRow } from './ledgerAnswer.js';
import { ledgerKeys } from './ledgerKeys.js';
import { useLedgerPosition } from './useLedgerPosition.js';

const shows: { show: LedgerShow; name: string }[] = [
  { show: 'all', name: 'All answers' },
  { show: 'open', name: 'Open' },
  { show: 'settled', name: 'Settled' },
  { show: 'sample', name: 'In the sample' },
  { show: 'changed', name: 'Corrected since' },
  { show: 'no_answer', name: 'No answer' },
];

/** The ledger: answers line by line, each line's codes in its own row. */
export function CodeStop() {
  const { study, question } = usePlace();
  const [search, setSearch] = useSearchParams();
  const show = ledgerShowSchema.catch('all').parse(search.get('show'));
  const words = search.get('words') ?? '';
  const ledger = useLedger(study.id, question.id, show, useDeferredValue(words));
  const codebook = useDrawnCodebook(study.id);
  useKeyHelp(ledgerKeys);
  const answers = useMemo(
    () => ledger.data?.pages.flatMap((page) => page.answers) ?? [],
    [ledger.data],
  );
  const narrow = (changes: { show?: LedgerShow; words?: string }) =>
    setSearch(
      (before) => {
        for (const [key, value] of Object.entries(changes))
          if (value === '' || value === 'all') before.delete(key);
          else before.set(key, value);
        return before;
      },
      { replace: true },
    );
  const total = ledger.data?.pages[0]?.total;
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-6 py-2">
        <div role="group" aria-label="Which answers" className="flex gap-1">
          {shows
            .filter((one) => one.show !== 'sample' || question.sample)
            .filter((one) => one.show !== 'changed' || question.changed > 0 || show === 'changed')
            .map((one) => (
              <button
                key={one.show}
                type="button"
                aria-pressed={one.show === show}
                onClick={() => narrow({ show: one.show })}
                className="rounded px-2 py-1 text-soft hover:text-ink aria-pressed:bg-wash aria-pressed:text-ink"
              >
                {one.name}
              </button>
            ))}
        </div>
        <Containing key={question.id} words={words} onWords={(now) => narrow({ words: now })} />
        <span className="figures ml-auto text-soft" role="status">
          {typeof total === 'number' && counted(total, 'answer')}
          {question.sample &&
            ` · ${asCount(question.sample.settled)} of ${asCount(question.sample.size)} in the sample settled`}
        </span>
      </div>
      {ledger.isError && <ProblemNote error={ledger.error} />}
      {(ledger.isPending || !codebook) && !ledger.isError && <Waiting what="the answers" />}
      {ledger.data && codebook && answers.length === 0 && (
        <EmptyState title="No answer is like that">
          <p>Nothing fits what is chosen above. Show all answers, or look for other words.</p>
        </EmptyState>
      )}
      {answers.length > 0 && codebook && (
        <Ledger
          key={`${question.id} ${show} ${words}`}
          answers={answers}
          codebook={codebook}
          more={ledger.hasNextPage && !ledger.isFetchingNextPage ? ledger.fetchNextPage : null}
        />
      )}
    </main>
  );
}

/** Keeps what is typed by itself: the address that it is written to follows a moment later. */
function Containing({ words, onWords }: { words: string; onWords: (words: string) => void }) {
  const [typed, setTyped] = useState(words);
  return (
    <input
      aria-label="Answers containing"
      placeholder="containing …"
      className={`${inputBox} w-44 !py-1`}
      value={typed}
      onChange={(event) => {
        setTyped(event.target.value);
        onWords(event.target.value);
      }}
      onKeyDown={({ key, currentTarget }) => {
        if (key !== 'Enter') return;
        const field = currentTarget.closest('main')?.querySelector<HTMLElement>('[role=combobox]');
        // while the answers are fetched there is no field yet: it takes the focus that is let go
        if (field) field.focus();
        else currentTarget.blur();
      }}
    />
  );
}

interface LedgerProps {
  answers: Parameters<typeof useLedgerPosition>[0];
  codebook: NonNullable<ReturnType<typeof useDrawnCodebook>>;
  /** Fetches the next page; null while there is none to fetch. */
  more: (() => unknown) | null;
}

function Ledger({ answers, codebook, more }: LedgerProps) {
  const { study } = usePlace();
  const scroller = useRef<HTMLDivElement>(null);
  const position = useLedgerPosition(answers, study.asides);
  const [lifted, setLifted] = useState<string | null>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the compiler is not in use
  const rows = useVirtualizer({
    count: answers.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 92,
    getItemKey: (index) => answers[index]!.id,
    overscan: 6,
    // room under the active answer for the codes found
    scrollPaddingStart: 8,
    scrollPaddingEnd: 230,
  });
  const { place } = position;
  useEffect(() => {
    rows.scrollToIndex(place.answer, { align: 'auto' });
  }, [rows, place.answer]);
  const items = rows.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (more && last >= answers.length - 20) more();
  }, [more, last, answers.length]);
  const shown = study.variables.filter((one) => one.kind === 'category').slice(0, 3);
  return (
    <div ref={scroller} role="feed" aria-label="Answers" className="min-h-0 flex-1 overflow-y-auto">
      <div className="relative w-full" style={{ height: rows.getTotalSize() + 240 }}>
        {items.map((item) => {
          const answer = answers[item.index]!;
          return (
            <div
              key={item.key}
              ref={rows.measureElement}
              data-index={item.index}
              // the codes found hang over the answers below
              className={`absolute inset-x-0 top-0 ${item.index === place.answer ? 'z-10' : ''}`}
              style={{ transform: `translateY(${item.start}px)` }}
            >
              <LedgerAnswerRow
                answer={answer}
                about={[
                  answer.externalId,
                  ...shown.map((variable) => nameIn(variable, answer.background)),
                ]
                  .filter((name) => name !== '')
                  .join(' · ')}
                codebook={codebook}
                place={item.index === place.answer ? place : null}
                index={item.index}
                position={position}
                lifted={lifted}
                onLift={setLifted}
              />
            </div>
          );
        })}
      </div>
    </div>
  );
}
