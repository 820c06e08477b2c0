import { Link, useParams } from 'react-router';
import { useAddressPart } from '../frame/address.js';
import { useDrawnCodebook } from '../data/codebook.js';
import { useReviews } from '../data/review.js';
import { useDrawer } from '../frame/drawer.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { StitchMark } from '../parts/stitch.js';
import { CheckReading } from './checkReading.js';
import { CodeReview } from './codeReview.js';
import { Contradicted } from './contradicted.js';
import { Progress } from './progress.js';
import { reviewStopTexts } from './texts.js';

/** The suggestions of a question, one code at a time. */
export function ReviewStop() {
  const { study, question } = useStudyLocation();
  const { code } = useParams();
  const check = useAddressPart('check')[0];
  const openDrawer = useDrawer();
  const reviews = useReviews(study.id, question.id);
  const codebook = useDrawnCodebook(study.id);
  if (reviews.isError) return <PageProblem error={reviews.error} />;
  if (!reviews.data || !codebook) return <Waiting what={reviewStopTexts.suggestions} />;
  const places = new Map([...codebook.byId.keys()].map((id, place) => [id, place]));
  const { contradicted } = reviews.data;
  // by book, so that the list keeps still while one decides
  const codes = reviews.data.codes
    .filter(({ codeId }) => codebook.byId.has(codeId))
    .sort((x, y) => places.get(x.codeId)! - places.get(y.codeId)!);
  if (codes.length === 0)
    return (
      <EmptyState title={reviewStopTexts.noSuggestionsYet}>
        <p>{reviewStopTexts.suggestionsComeTrainingAnswers}</p>
        <Link to={`/studies/${study.id}/questions/${question.id}/train`} className="underline">
          {reviewStopTexts.goTrain}
        </Link>
      </EmptyState>
    );
  const base = `/studies/${study.id}/questions/${question.id}/review`;
  // without a code in the address the first is shown: to lead there would undo where one has gone meanwhile
  const shown = codes.find(({ codeId }) => codeId === code) ?? codes[0]!;
  const drawn = codebook.byId.get(shown.codeId)!;
  return (
    <main className="work-list grid grid-cols-[224px_minmax(0,1fr)] grid-rows-[minmax(0,1fr)] max-[760px]:grid-cols-1 max-[760px]:grid-rows-[auto_auto]">
      <nav
        aria-label={reviewStopTexts.codesSuggestions}
        className="min-h-0 overflow-y-auto border-r border-rule py-3 pl-4 pr-2 max-[760px]:max-h-32 max-[760px]:border-b max-[760px]:border-r-0"
      >
        {contradicted.length > 0 && (
          <button
            type="button"
            className="mb-2 w-full rounded border border-rule bg-card px-2 py-1.5 text-left text-[13px] hover:border-soft"
            onClick={() =>
              openDrawer({
                title: reviewStopTexts.contradictedModels,
                body: <Contradicted study={study} question={question} codebook={codebook} />,
              })
            }
          >
            {reviewStopTexts.contradictedModels2(contradicted.length)}
          </button>
        )}
        <ul>
          {codes.map(({ codeId, open }) => {
            const one = codebook.byId.get(codeId);
            return (
              one && (
                <li key={codeId}>
                  <Link
                    to={`${base}/${codeId}`}
                    aria-current={codeId === drawn.id ? 'page' : undefined}
                    className="flex items-center gap-2 rounded px-2 py-1.5 text-soft hover:text-ink aria-[current=page]:bg-wash aria-[current=page]:text-ink"
                  >
                    <StitchMark look={one.look} width={18} />
                    <span className="min-w-0 flex-1 truncate">{one.name}</span>
                    <span className="figures text-[13px]" aria-label={`${open} open`}>
                      {open}
                    </span>
                  </Link>
                </li>
              )
            );
          })}
        </ul>
        <Link
          to={`/studies/${study.id}/questions/${question.id}/left`}
          className="mt-3 block border border-transparent px-2 py-1.5 underline"
        >
          {reviewStopTexts.whatLeft}
        </Link>
        <Link
          to={`/studies/${study.id}/questions/${question.id}/tone`}
          className="block border border-transparent px-2 py-1.5 underline"
        >
          {reviewStopTexts.tone}
        </Link>
        <Button
          look="bare"
          className="mt-1 !px-2"
          onClick={() =>
            openDrawer({
              title: reviewStopTexts.suggestionsDecidedFar,
              body: <Progress study={study.id} question={question.id} codebook={codebook} />,
            })
          }
        >
          {reviewStopTexts.whoDecidedWhat}
        </Button>
      </nav>
      {check ? (
        <CheckReading code={drawn} check={check} />
      ) : (
        <CodeReview key={`${question.id} ${drawn.id}`} code={drawn} codebook={codebook} />
      )}
    </main>
  );
}
