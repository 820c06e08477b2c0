import type { Decision } from '@yellow-thread/contract';
import { extendByWord } from '@yellow-thread/core/coding';
import { expectAbove, outlookOf } from '@yellow-thread/core/review';
import type { Span } from '@yellow-thread/core/text';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { usePlaceLine, useReview, useSettleLine, useSuggestions } from '../data/review.js';
import { useKeyHelp, type KeyHelp } from '../frame/keys.js';
import { usePlace } from '../frame/place.js';
import { isTyping } from '../frame/typing.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { useOpenByHand } from './byHand.js';
import { LineFigures } from './lineFigures.js';
import { LineScale } from './lineScale.js';
import { SuggestionList } from './suggestionList.js';
import type { Asking } from './suggestionRow.js';
import { useRowDeeds } from './useRowDeeds.js';

const keyHelp: readonly KeyHelp[] = [
  { keys: '↑ ↓', does: 'suggestion before, next suggestion' },
  { keys: 'A', does: 'accept it' },
  { keys: 'R', does: 'refuse it' },
  { keys: 'O', does: 'open it again' },
  { keys: 'Shift ← →', does: 'mark words, on which it is then accepted' },
  { keys: 'I', does: 'another code instead' },
  { keys: 'W', does: 'another code as well' },
  { keys: 'U', does: 'unsure, or no longer' },
  { keys: 'H', does: 'what was coded by hand, to compare' },
  { keys: 'Shift ↑ ↓', does: 'move the line by one suggestion' },
  { keys: 'L', does: 'go to the line' },
];

/** One code: the line across its suggestions, and what lies on either side. */
export function CodeReview({ code, codebook }: { code: DrawnCode; codebook: DrawnCodebook }) {
  const { study, question } = usePlace();
  const review = useReview(study.id, question.id, code.id);
  const list = useSuggestions(study.id, question.id, code.id);
  const settle = useSettleLine(study.id, question.id, code.id);
  const place = usePlaceLine(study.id, question.id, code.id);
  const [moved, setMoved] = useState<number | null>(null);
  const [active, setPlace] = useState(0);
  const [passage, mark] = useState<Span | null>(null);
  const [asking, ask] = useState<Asking | null>(null);
  const setActive = useCallback((to: number) => {
    setPlace(to);
    mark(null);
    ask(null);
  }, []);
  useKeyHelp(keyHelp);

  const line = moved ?? review.data?.line ?? 1;
  const suggestions = useMemo(
    () => list.data?.pages.flatMap((page) => page.suggestions) ?? [],
    [list.data],
  );
  const suggestion = suggestions[active];
  const goOn = () => setActive(Math.min(suggestions.length - 1, active + 1));
  const outlook = useMemo(
    () =>
      review.data &&
      outlookOf(review.data.open, review.data.known, review.data.unsuggested, review.data.unseen),
    [review.data],
  );

  // the line is kept a moment after it comes to rest, not at every pixel
  const { mutate: placeLine } = place;
  const rest = useRef<ReturnType<typeof setTimeout>>(undefined);
  const moveLine = useCallback(
    (to: number) => {
      setMoved(to);
      clearTimeout(rest.current);
      rest.current = setTimeout(() => placeLine(to, { onError: () => setMoved(null) }), 400);
    },
    [placeLine],
  );
  useEffect(() => () => clearTimeout(rest.current), []);

  const deeds = useRowDeeds({
    study,
    question,
    code,
    suggestion,
    passage,
    asking,
    mark,
    ask,
    goOn,
  });
  const openByHand = useOpenByHand({ study, question, code });
  /** The place in the list above which the line lies. */
  const linePlace = suggestions.findIndex((one) => one.probability < line);
  const below = linePlace === -1 ? suggestions.length : linePlace;

  const { data: fetched, hasNextPage, isFetchingNextPage, fetchNextPage } = list;
  /** Goes to the first suggestion below the line, which may lie further down than what is fetched. */
  const goToLine = useCallback(async () => {
    let now = { data: fetched, hasNextPage, isError: false };
    for (;;) {
      const all = now.data?.pages.flatMap((page) => page.suggestions) ?? [];
      const place = all.findIndex((one) => one.probability < line);
      if (place !== -1 || !now.hasNextPage || now.isError)
        return setActive(Math.max(0, place === -1 ? all.length - 1 : place));
      now = await fetchNextPage();
    }
  }, [fetched, hasNextPage, fetchNextPage, line, setActive]);

  // listens anew after every drawing: what a key does follows from all that is drawn
  useEffect(() => {
    const stepLine = (step: 1 | -1) => {
      const to = below + step;
      const before = suggestions[to - 1]?.probability ?? 1;
      const after = suggestions[to]?.probability ?? Math.max(0, before - 0.01);
      if (to >= 0 && to <= suggestions.length) moveLine((before + after) / 2);
    };
    const goTo = (to: number) => setActive(Math.min(suggestions.length - 1, Math.max(0, to)));
    const decideAndGoOn = (state: Decision) => {
      deeds.decide(state);
      goOn();
    };
    const markWord = (step: 1 | -1) => {
      if (!suggestion) return;
      const { text } = suggestion;
      mark(extendByWord(text, { start: 0, end: text.length }, passage, step));
    };
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.target instanceof HTMLInputElement) return;
      const acts: Record<string, () => void> = {
        ArrowDown: () => (event.shiftKey ? stepLine(1) : goTo(active + 1)),
        ArrowUp: () => (event.shiftKey ? stepLine(-1) : goTo(active - 1)),
        a: () => decideAndGoOn('accepted'),
        r: () => decideAndGoOn('refused'),
        o: () => deeds.decide('open'),
        i: () => ask('instead'),
        w: () => ask('as well'),
        u: deeds.unsure,
        l: () => void goToLine(),
        h: openByHand,
        ...(event.shiftKey && { ArrowRight: () => markWord(1), ArrowLeft: () => markWord(-1) }),
        ...(passage && { Escape: () => mark(null) }),
      };
      const act = acts[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });

  if (review.isError) return <PageProblem error={review.error} />;
  if (list.isError) return <PageProblem error={list.error} />;
  if (!review.data || !outlook || !list.data) return <Waiting what="the suggestions" />;
  return (
    <div className="grid min-h-0 grid-cols-[72px_minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <LineFigures
        code={code}
        review={review.data}
        expected={expectAbove(outlook, line)}
        line={line}
        busy={settle.isPending}
        onLine={moveLine}
        onSettle={(side) => settle.mutate({ runId: review.data.runId, line, side })}
      />
      <LineScale outlook={outlook} byHand={review.data.unseen.yes} line={line} onLine={moveLine} />
      <SuggestionList
        suggestions={suggestions}
        {...{ code, codebook, below, active, passage, asking, deeds }}
        onActive={(at) => {
          if (at !== active) setActive(at);
        }}
        onLine={moveLine}
        more={hasNextPage && !isFetchingNextPage ? fetchNextPage : null}
      />
    </div>
  );
}
