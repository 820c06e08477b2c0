import type { Review } from '@yellow-thread/contract';
import {
  expectAbove,
  foundAndMissed,
  outlookOf,
  type DecidedSoFar,
} from '@yellow-thread/core/review';
import type { Span } from '@yellow-thread/core/text';
import { useCallback, useMemo, useState } from 'react';
import type { DrawnCode, DrawnCodebook } from '../data/codebook.js';
import { useReview, useDecideByThreshold, useSuggestions } from '../data/review.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { useOpenByHand } from './byHand.js';
import { ThresholdFigures } from './thresholdFigures.js';
import { ThresholdScale } from './thresholdScale.js';
import { SuggestionList } from './suggestionList.js';
import type { Asking } from './suggestionRow.js';
import { useThreshold } from './useThreshold.js';
import { useCommands } from '../frame/commands.js';
import { reviewCommands, reviewHelp } from './commands.js';
import { useRowActions } from './useRowActions.js';
import { useWantedRight } from './useWantedRight.js';
import { codeReviewTexts } from './texts.js';

/** What is decided of a code, and what is expected among what nobody read. */
const decidedOf = (review: Review): DecidedSoFar => ({
  known: review.known,
  acceptedUnread: { count: review.acceptedInBulk, expected: review.acceptedExpected },
  refusedUnread: { count: review.refusedInBulk, expected: review.refusedExpected },
  unsuggested: review.unsuggested,
  checked: review.checked,
});

/** One code: the line across its suggestions, and what lies on either side. */
export function CodeReview({ code, codebook }: { code: DrawnCode; codebook: DrawnCodebook }) {
  const { study, question } = useStudyLocation();
  const review = useReview(study.id, question.id, code.id);
  const list = useSuggestions(study.id, question.id, code.id);
  const settle = useDecideByThreshold(study.id, question.id, code.id);
  const [active, setPlace] = useState(0);
  const [passage, mark] = useState<Span | null>(null);
  const [asking, ask] = useState<Asking | null>(null);
  const [showsReasons, setShowsReasons] = useState(false);
  const setActive = useCallback((to: number) => {
    setPlace(to);
    mark(null);
    ask(null);
  }, []);

  const { threshold, moveThreshold } = useThreshold(code.id, review.data);
  const [wanted, setWanted] = useWantedRight();
  const suggestions = useMemo(
    () => list.data?.pages.flatMap((page) => page.suggestions) ?? [],
    [list.data],
  );
  const suggestion = suggestions[active];
  const goOn = () => setActive(Math.min(suggestions.length - 1, active + 1));
  const outlook = useMemo(
    () =>
      review.data &&
      outlookOf(review.data.open, foundAndMissed(decidedOf(review.data)), review.data.unseen),
    [review.data],
  );

  const actions = useRowActions({
    study,
    question,
    code,
    suggestion,
    passage,
    asking,
    mark,
    ask,
    toggleReasons: () => setShowsReasons((now) => !now),
    goOn,
  });
  const openByHand = useOpenByHand({ study, question, code });
  /** The place in the list above which the line lies. */
  const linePlace = suggestions.findIndex((one) => one.probability < threshold);
  const below = linePlace === -1 ? suggestions.length : linePlace;

  const { data: fetched, hasNextPage, isFetchingNextPage, fetchNextPage } = list;
  /** Goes to the first suggestion below the line, which may lie further down than what is fetched. */
  const goToThreshold = useCallback(async () => {
    let now = { data: fetched, hasNextPage, isError: false };
    for (;;) {
      const all = now.data?.pages.flatMap((page) => page.suggestions) ?? [];
      const place = all.findIndex((one) => one.probability < threshold);
      if (place !== -1 || !now.hasNextPage || now.isError)
        return setActive(Math.max(0, place === -1 ? all.length - 1 : place));
      now = await fetchNextPage();
    }
  }, [fetched, hasNextPage, fetchNextPage, threshold, setActive]);

  useCommands(
    reviewCommands,
    {
      suggestions,
      active,
      passage,
      below,
      actions,
      setActive,
      mark,
      ask,
      moveThreshold,
      goToThreshold,
      openByHand,
    },
    reviewHelp,
  );

  if (review.isError) return <PageProblem error={review.error} />;
  if (list.isError) return <PageProblem error={list.error} />;
  if (!review.data || !outlook || !list.data) return <Waiting what={codeReviewTexts.suggestions} />;
  return (
    <div className="grid min-h-0 grid-cols-[72px_minmax(0,1fr)] grid-rows-[auto_minmax(var(--list),1fr)]">
      <ThresholdFigures
        code={code}
        review={review.data}
        expected={expectAbove(outlook, threshold)}
        threshold={threshold}
        wanted={wanted}
        busy={settle.isPending}
        onThreshold={moveThreshold}
        onSettle={(side) => settle.mutate({ runId: review.data.runId, threshold, side })}
      />
      <ThresholdScale
        outlook={outlook}
        byHand={review.data.unseen.yes}
        threshold={threshold}
        wanted={wanted}
        onThreshold={moveThreshold}
        onWanted={setWanted}
      />
      <SuggestionList
        suggestions={suggestions}
        code={code}
        codebook={codebook}
        below={below}
        active={active}
        passage={passage}
        asking={asking}
        showsReasons={showsReasons}
        actions={actions}
        onActive={setActive}
        onThreshold={moveThreshold}
        more={hasNextPage && !isFetchingNextPage ? fetchNextPage : null}
      />
    </div>
  );
}
