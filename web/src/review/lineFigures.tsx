import type { Review } from '@yellow-thread/contract';
import type { Expectation } from '@yellow-thread/core/review';
import { useState } from 'react';
import { Link } from 'react-router';
import type { DrawnCode } from '../data/codebook.js';
import { useDrawer } from '../frame/drawer.js';
import { usePlace } from '../frame/place.js';
import { Button } from '../parts/button.js';
import { asCount, asMeasured, asShare, counted } from '../parts/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import { verdictWords } from '../parts/verdictWords.js';
import { useOpenByHand } from './byHand.js';
import { CloseCode } from './closeCode.js';
import { LineChart } from './lineChart.js';
import { SpotChecks } from './spotChecks.js';

/** What lies above the line, how much of it is expected to be right, and settling either side. */
export function LineFigures({
  code,
  review,
  expected,
  line,
  wanted,
  busy,
  onLine,
  onSettle,
}: {
  code: DrawnCode;
  review: Review;
  expected: Expectation;
  line: number;
  /** The share right that one wants of what is accepted in bulk. */
  wanted: number;
  busy: boolean;
  onLine: (line: number) => void;
  onSettle: (side: 'above' | 'below') => void;
}) {
  const openDrawer = useDrawer();
  const { study, question } = usePlace();
  const openByHand = useOpenByHand({ study, question, code });
  const below = review.open.length - expected.above;
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
        <div className="flex flex-wrap items-baseline gap-x-3">
          <StitchMark look={code.look} />
          <h1 style={{ color: code.look.ink }}>{code.name}</h1>
          <span className="min-w-0 flex-1 truncate text-soft" title={code.definition}>
            {code.definition}
          </span>
          <span className="figures text-soft">
            {asCount(review.accepted)} accepted
            {review.acceptedInBulk > 0 && ` (${asCount(review.acceptedInBulk)} in bulk)`} ·{' '}
            {asCount(review.refused)} refused ·{' '}
            <button
              type="button"
              className="underline hover:text-ink"
              title="What was coded by hand, to compare with: H"
              onClick={openByHand}
            >
              {counted(review.examples, 'example')}
            </button>
          </span>
        </div>
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
          <dl className="figures flex flex-wrap gap-x-4">
            <Figure name="line at" value={asShare(line)} />
            <Figure name="above it" value={asCount(expected.above)} />
            <Figure
              name="expected right"
              value={expected.shareRight ? asShare(expected.shareRight.value) : '–'}
              interval={expected.shareRight?.interval.map(asShare).join('–')}
            />
            <Figure
              name="found of all"
              value={expected.shareFound === null ? '–' : asShare(expected.shareFound)}
            />
          </dl>
          <div className="ml-auto flex flex-wrap gap-2">
            {review.acceptedInBulk + review.refusedInBulk > 0 && (
              <Button
                look="bare"
                onClick={() =>
                  openDrawer({
                    title: `Spot checks of ${code.name}`,
                    body: <SpotChecks {...{ code, study, question }} />,
                  })
                }
              >
                Spot check
              </Button>
            )}
            {Math.abs(line - review.defaultLine) > 0.005 && (
              <Button look="bare" onClick={() => onLine(review.defaultLine)}>
                Back to {asShare(review.defaultLine)}
              </Button>
            )}
            <span
              className="self-center text-[13px] text-soft"
              title="What Train says of the model"
            >
              model: {verdictWords(review.verdict, review.defaultLine)}
            </span>
            <Button disabled={busy || below === 0} onClick={() => onSettle('below')}>
              Refuse {asCount(below)} below
            </Button>
            <Button look="main" disabled={busy || expected.above === 0} onClick={accept}>
              Accept {asCount(expected.above)} above
            </Button>
          </div>
        </div>
        {asking && expected.above > 0 && (
          <div
            role="alertdialog"
            aria-label="Accept all the same?"
            className="mt-2 flex flex-wrap items-center gap-3 rounded border border-brick px-3 py-2"
          >
            <p className="min-w-0 flex-1">
              About {asCount(Math.round((1 - right) * expected.above))} of these{' '}
              {asCount(expected.above)} would be wrong. You want {asShare(wanted)} right; expected
              are {asShare(right)}.
            </p>
            <Button onClick={() => ask(false)}>Do not accept</Button>
            <Button look="grave" disabled={busy} onClick={accept}>
              Accept all the same
            </Button>
          </div>
        )}
        <p className="mt-1.5 text-[13px] text-soft">
          {standing(review)} <Believe review={review} />{' '}
          <Link to={`/studies/${study.id}/questions/${question.id}/left`} className="underline">
            What is left of this question
          </Link>
        </p>
        <CloseCode key={code.id} code={code} review={review} />
      </div>
      <div className="hidden pt-1 xl:block">
        <LineChart unseen={review.unseen} line={line} />
      </div>
    </header>
  );
}

function Figure({ name, value, interval }: { name: string; value: string; interval?: string }) {
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
  const { suggested, open, defaultLine, quality, isClosed, undecided } = review;
  if (isClosed && undecided === 0) return 'Closed: the code is decided for everybody.';
  if (!suggested) return 'Nothing is suggested: the model knows too little of this code.';
  if (open.length === 0)
    return `Every suggestion is decided. For ${counted(undecided, 'answer')} without one it is not decided yet.`;
  const right = asMeasured(quality.precision, quality.precisionInterval);
  const found = asMeasured(quality.recall, quality.recallInterval);
  return `Measured out-of-fold at ${asShare(defaultLine)}: right ${right}, found ${found}.`;
}

/** Which of two figures to believe, where what is expected and what was measured differ. */
function Believe({ review: { checked } }: { review: Review }) {
  if (checked.accepted !== null)
    return `A spot check found ${asShare(checked.accepted)} of those accepted to be right: believe that before what is expected.`;
  return '“Expected right” is of these very answers, by the model’s own probabilities; “measured” is of answers that people coded. Where they differ much, believe the lower one until a spot check settles it.';
}
