import type { Review } from '@yellow-thread/contract';
import type { Expectation } from '@yellow-thread/core/review';
import { useState } from 'react';
import { Link } from 'react-router';
import type { DrawnCode } from '../data/codebook.js';
import { useDrawer } from '../frame/drawer.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { asCount, asMeasured, asShare } from '../lib/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import { verdictWords } from '../parts/verdictWords.js';
import { useOpenByHand } from './byHand.js';
import { CloseCode } from './closeCode.js';
import { ThresholdChart } from './thresholdChart.js';
import { SpotChecks } from './spotChecks.js';
import { thresholdFiguresTexts } from './texts.js';

interface ThresholdFiguresProps {
  code: DrawnCode;
  review: Review;
  expected: Expectation;
  threshold: number;
  /** The share right that one wants of what is accepted in bulk. */
  wanted: number;
  busy: boolean;
  onThreshold: (threshold: number) => void;
  onSettle: (side: 'above' | 'below') => void;
}

/** What lies above the line, how much of it is expected to be right, and settling either side. */
export function ThresholdFigures(props: ThresholdFiguresProps) {
  const { code, review, expected, threshold, wanted, busy, onSettle } = props;
  const { study, question } = useStudyLocation();
  const [asking, ask] = useState(false);
  const right = expected.shareRight?.value ?? 1;
  const accept = () => {
    if (right < wanted && !asking) return ask(true);
    ask(false);
    onSettle('above');
  };
  return (
    <header className="col-span-2 grid grid-cols-[minmax(0,1fr)_auto] gap-x-6 border-b border-rule px-6 py-3 max-sm:px-3">
      <div className="min-w-0">
        <CodeHead code={code} review={review} />
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
          <dl className="figures flex flex-wrap gap-x-4">
            <Figure name={thresholdFiguresTexts.line} value={asShare(threshold)} />
            <Figure name={thresholdFiguresTexts.above} value={asCount(expected.above)} />
            <Figure
              name={thresholdFiguresTexts.expectedRight}
              value={expected.shareRight ? asShare(expected.shareRight.value) : '–'}
              interval={expected.shareRight?.interval.map(asShare).join('–')}
            />
            <Figure
              name={thresholdFiguresTexts.foundAll}
              value={expected.shareFound === null ? '–' : asShare(expected.shareFound)}
            />
          </dl>
          <Sides {...props} onAccept={accept} />
        </div>
        {asking && expected.above > 0 && (
          <div
            role="alertdialog"
            aria-label={thresholdFiguresTexts.acceptAllSame}
            className="mt-2 flex flex-wrap items-center gap-3 rounded border border-brick px-3 py-2"
          >
            <p className="min-w-0 flex-1">
              {thresholdFiguresTexts.aboutWouldWrongYou(
                Math.round((1 - right) * expected.above),
                expected.above,
                wanted,
                right,
              )}
            </p>
            <Button onClick={() => ask(false)}>{thresholdFiguresTexts.accept}</Button>
            <Button look="grave" disabled={busy} onClick={accept}>
              {thresholdFiguresTexts.acceptAllSame2}
            </Button>
          </div>
        )}
        <p className="mt-1.5 text-[13px] text-soft">
          {standing(review)} <Believe review={review} />{' '}
          <Link to={`/studies/${study.id}/questions/${question.id}/left`} className="underline">
            {thresholdFiguresTexts.whatLeftQuestion}
          </Link>
        </p>
        <CloseCode key={code.id} code={code} review={review} />
      </div>
      <div className="hidden pt-1 xl:block">
        <ThresholdChart unseen={review.unseen} threshold={threshold} />
      </div>
    </header>
  );
}

/** The code with what is decided of it, and the way to what was coded by hand. */
function CodeHead({ code, review }: Pick<ThresholdFiguresProps, 'code' | 'review'>) {
  const { study, question } = useStudyLocation();
  const openByHand = useOpenByHand({ study, question, code });
  return (
    <div className="flex flex-wrap items-baseline gap-x-3">
      <StitchMark look={code.look} />
      <h1 style={{ color: code.look.ink }}>{code.name}</h1>
      <span className="min-w-0 flex-1 truncate text-soft" title={code.definition}>
        {code.definition}
      </span>
      <span className="figures text-soft">
        {thresholdFiguresTexts.accepted(review.accepted)}
        {review.acceptedInBulk > 0 && thresholdFiguresTexts.bulk(review.acceptedInBulk)}{' '}
        {thresholdFiguresTexts.refused(review.refused)}
        <button
          type="button"
          className="underline hover:text-ink"
          title={thresholdFiguresTexts.whatCodedHandCompare}
          onClick={openByHand}
        >
          {thresholdFiguresTexts.exampleCounted(review.examples)}
        </button>
      </span>
    </div>
  );
}

/** What can be done with either side of the threshold. */
function Sides({
  code,
  review,
  expected,
  threshold,
  busy,
  onThreshold,
  onSettle,
  onAccept,
}: ThresholdFiguresProps & { onAccept: () => void }) {
  const openDrawer = useDrawer();
  const { study, question } = useStudyLocation();
  const below = review.open.length - expected.above;
  return (
    <div className="ml-auto flex flex-wrap gap-2">
      {review.acceptedInBulk + review.refusedInBulk > 0 && (
        <Button
          look="bare"
          onClick={() =>
            openDrawer({
              title: thresholdFiguresTexts.spotChecks(code.name),
              body: <SpotChecks code={code} study={study} question={question} />,
            })
          }
        >
          {thresholdFiguresTexts.spotCheck}
        </Button>
      )}
      {Math.abs(threshold - review.defaultThreshold) > 0.005 && (
        <Button look="bare" onClick={() => onThreshold(review.defaultThreshold)}>
          {thresholdFiguresTexts.back(review.defaultThreshold)}
        </Button>
      )}
      <span
        className="self-center text-[13px] text-soft"
        title={thresholdFiguresTexts.whatTrainSaysModel}
      >
        {thresholdFiguresTexts.model(verdictWords(review.verdict, review.defaultThreshold))}
      </span>
      <Button disabled={busy || below === 0} onClick={() => onSettle('below')}>
        {thresholdFiguresTexts.refuseBelow(below)}
      </Button>
      <Button look="main" disabled={busy || expected.above === 0} onClick={onAccept}>
        {thresholdFiguresTexts.acceptAbove(expected.above)}
      </Button>
    </div>
  );
}

function Figure({
  name,
  value,
  interval,
}: {
  name: string;
  value: string;
  interval?: string | undefined;
}) {
  return (
    <div>
      <dt className="text-[13px] text-soft">{name}</dt>
      <dd className="min-w-[3ch] whitespace-nowrap text-[17px] font-semibold">
        {value}
        {interval && <span className="text-[13px] font-normal text-soft"> ({interval})</span>}
      </dd>
    </div>
  );
}

/** How far the code is decided, and what the report makes of it. */
function standing(review: Review): string {
  const { suggested, open, defaultThreshold, quality, isClosed, undecided } = review;
  if (isClosed && undecided === 0) return thresholdFiguresTexts.closedCodeDecidedEverybody;
  if (!suggested) return thresholdFiguresTexts.nothingSuggestedModelKnows;
  if (open.length === 0) return thresholdFiguresTexts.everySuggestionDecidedWithout(undecided);
  const right = asMeasured(quality.precision, quality.precisionInterval);
  const found = asMeasured(quality.recall, quality.recallInterval);
  return thresholdFiguresTexts.measuredOutFoldRight(defaultThreshold, right, found);
}

/** Which of two figures to believe, where what is expected and what was measured differ. */
function Believe({ review: { checked } }: { review: Review }) {
  if (checked.accepted !== null)
    return thresholdFiguresTexts.spotCheckFoundAccepted(checked.accepted);
  return thresholdFiguresTexts.expectedRightVeryAnswers;
}
