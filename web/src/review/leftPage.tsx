import type { CodeLeft, WhatIsLeft } from '@yellow-thread/contract';
import { waysToFinish, type Left } from '@yellow-thread/core/review';
import { Link } from 'react-router';
import { useDrawnCodebook } from '../data/codebook.js';
import { useWhatIsLeft } from '../data/finish.js';
import { stopPath, useStudyLocation } from '../frame/studyLocation.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { asCount } from '../lib/numbers.js';
import { CodesLeft } from './codesLeft.js';
import { USUAL_CHECK } from './leaveToModels.js';
import { ModelDecision } from './modelDecision.js';
import { Ways } from './ways.js';
import { leftPageTexts } from './texts.js';

/** What is left of a question: where its answers stand, and the ways to its end. */
export function LeftPage() {
  const { study, question } = useStudyLocation();
  const left = useWhatIsLeft(study.id, question.id);
  const codebook = useDrawnCodebook(study.id);
  if (left.isError) return <PageProblem error={left.error} />;
  if (!left.data || !codebook) return <Waiting what={leftPageTexts.whatLeft} />;
  const { data } = left;
  return (
    <main className="work px-6 py-5 max-sm:px-4">
      <div className="flex max-w-[1120px] flex-col gap-7">
        <section aria-labelledby="stands">
          <h1 id="stands">{data.isFinished ? leftPageTexts.finished : leftPageTexts.whatLeft2}</h1>
          <Standing left={data} />
          {data.isFinished && (
            <p className="mt-3">
              {leftPageTexts.everyAnswerSettled}
              <Link to={stopPath(study.id, 'report', question.id)} className="underline">
                {leftPageTexts.goReport}
              </Link>
            </p>
          )}
        </section>
        {!data.isFinished && (
          <Ways ways={waysToFinish(asLeft(data))} left={data} study={study} question={question} />
        )}
        {data.model && <ModelDecision model={data.model} study={study} question={question} />}
        <CodesLeft left={data} codebook={codebook} study={study} question={question} />
      </div>
    </main>
  );
}

const sumOf = (codes: readonly CodeLeft[], count: (code: CodeLeft) => number) =>
  codes.reduce((sum, code) => sum + count(code), 0);

/** What the ways to the end are made from. */
const asLeft = (left: WhatIsLeft): Left => ({
  openWordings: left.openWordings,
  suggestions: sumOf(left.codes, ({ open }) => open),
  unsureSuggestions: sumOf(left.codes, ({ unsure }) => unsure),
  withoutModel: left.codes.filter(({ verdict, undecided }) => verdict === null && undecided > 0)
    .length,
  hasModels: left.hasModels,
  canEstimate: left.widest !== null,
  check: Math.min(USUAL_CHECK, left.open),
  pace: left.pace,
});

/** Where the answers stand: the thread as far as it has come, and each part in numbers. */
function Standing({ left }: { left: WhatIsLeft }) {
  const { answered, settled, assisted, decided, byModel, open } = left;
  const parts = [
    {
      name: leftPageTexts.settledHand(assisted),
      count: settled,
      fill: 'bg-thread',
    },
    { name: leftPageTexts.decidedReviewCodeCode, count: decided, fill: 'bg-thread/60' },
    {
      name: leftPageTexts.leftModelsEstimatedCounted,
      count: byModel,
      fill: 'bg-[repeating-linear-gradient(90deg,var(--color-thread)_0_4px,transparent_4px_9px)]',
    },
    { name: 'open', count: open, fill: 'bg-rule' },
  ].filter(({ count }) => count > 0);
  return (
    <>
      <div
        role="img"
        aria-label={parts.map(({ name, count }) => `${asCount(count)} ${name}`).join(', ')}
        className="mt-3 flex h-2 max-w-[720px] gap-[2px]"
      >
        {parts.map(({ name, count, fill }) => (
          <span key={name} className={fill} style={{ flexGrow: count }} />
        ))}
      </div>
      <ul className="figures mt-2 flex flex-wrap gap-x-6 gap-y-1">
        {parts.map(({ name, count }) => (
          <li key={name}>
            <span className="font-semibold">{asCount(count)}</span> {name}
          </li>
        ))}
        <li className="text-soft">{leftPageTexts.of(answered)}</li>
      </ul>
    </>
  );
}
