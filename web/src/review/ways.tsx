import type { Question, StudyDetail, WhatIsLeft } from '@yellow-thread/contract';
import type { Way, WayToFinish } from '@yellow-thread/core/review';
import { useState } from 'react';
import { Link } from 'react-router';
import { stopPath } from '../frame/place.js';
import { Button } from '../parts/button.js';
import { asCount, counted } from '../parts/numbers.js';
import { LeaveToModels } from './leaveToModels.js';

const percent = new Intl.NumberFormat(undefined, { style: 'percent' });

/** "about 4 minutes", "about 2 hours". */
function asDuration(seconds: number): string {
  if (seconds < 45) return 'less than a minute';
  const minutes = Math.round(seconds / 60);
  if (minutes < 90) return `about ${counted(minutes, 'minute')}`;
  return `about ${counted(Math.round(minutes / 60), 'hour')}`;
}

interface WaysProps {
  ways: readonly WayToFinish[];
  left: WhatIsLeft;
  study: StudyDetail;
  question: Question;
}

/** The ways to the end of a question, each with the work that it takes and the certainty that it gives. */
export function Ways({ ways, left, study, question }: WaysProps) {
  const [leaving, setLeaving] = useState(false);
  const [first] = ways;
  const base = `/studies/${study.id}/questions/${question.id}`;
  const own = left.pace.answer !== null;
  return (
    <section aria-labelledby="ways">
      <h2 id="ways">Ways to the end</h2>
      <p className="text-soft">
        {first?.way === 'read' &&
          `What is open can be read in ${asDuration(first.seconds)}. That is the surest way. `}
        {left.sampleOpen > 0 &&
          `${counted(left.sampleOpen, 'answer')} drawn for coding by hand ${left.sampleOpen === 1 ? 'is' : 'are'} read without suggestions. `}
        Times are by {own ? 'your own pace of late' : 'a usual pace, until yours is known'}.
      </p>
      <ol className="mt-2 max-w-[920px] border-t border-rule">
        {ways.map((way) => (
          <li
            key={way.way}
            className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-6 border-b border-rule py-3"
          >
            <div>
              <h3 className="font-semibold">{names[way.way]}</h3>
              <p>
                <span className="figures">{workOf(way)}</span>{' '}
                <span className="text-soft">{certaintyOf(way, left)}</span>
              </p>
            </div>
            {way.way === 'models' ? (
              <Button
                disabled={!way.isOpen || left.model !== null}
                aria-expanded={leaving}
                onClick={() => setLeaving(!leaving)}
              >
                Leave the rest to the models …
              </Button>
            ) : way.isOpen ? (
              <Link
                to={
                  {
                    estimates: `${stopPath(study.id, 'report', question.id)}?counts=estimated`,
                    read: `${stopPath(study.id, 'code', question.id)}?show=open&order=similar&reading=on`,
                    codes: stopPath(study.id, 'review', question.id),
                    hand: `${stopPath(study.id, 'code', question.id)}?show=open`,
                  }[way.way]
                }
                className={`rounded border px-3 py-1.5 font-medium ${way === first ? 'border-ink bg-ink text-paper hover:opacity-90' : 'border-rule bg-card hover:border-soft'}`}
              >
                {buttons[way.way]}
              </Link>
            ) : (
              <span className="text-[13px] text-soft">
                {way.way === 'estimates' ? '' : 'train first'}{' '}
                {way.way !== 'estimates' && (
                  <Link to={`${base}/train`} className="underline">
                    Train
                  </Link>
                )}
              </span>
            )}
            {way.way === 'models' && leaving && !left.model && (
              <LeaveToModels
                left={left}
                study={study}
                question={question}
                onDone={() => setLeaving(false)}
              />
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

const names: Record<Way, string> = {
  estimates: 'Report estimates now',
  read: 'Read answer by answer, with suggestions filled in',
  codes: 'Decide code by code',
  hand: 'Code by hand what is left',
  models: 'Let the models decide the rest',
};
const buttons: Record<Exclude<Way, 'models'>, string> = {
  estimates: 'See the estimates',
  read: 'Read them',
  codes: 'Go to Review',
  hand: 'Go to Code',
};

function workOf({ way, work, seconds }: WayToFinish): string {
  switch (way) {
    case 'estimates':
      return 'No more work.';
    case 'codes':
      return `${counted(work, 'suggestion')} that the models are unsure of, ${asDuration(seconds)}; the others in bulk.`;
    case 'models':
      return `${counted(work, 'answer')} to check, ${asDuration(seconds)}.`;
    case 'read':
    case 'hand':
      return `${counted(work, 'answer')} of different words, ${asDuration(seconds)}.`;
  }
}

function certaintyOf({ way }: WayToFinish, { widest, notEstimated, codes }: WhatIsLeft): string {
  const without = codes.filter(
    ({ verdict, undecided }) => verdict === null && undecided > 0,
  ).length;
  switch (way) {
    case 'estimates':
      return widest
        ? `The widest interval among the themes is that of ${widest.name}: ${percent.format(widest.interval[0])} to ${percent.format(widest.interval[1])}.`
        : (notEstimated ?? '');
    case 'read':
      return 'Every answer is read; the table is a plain count.';
    case 'codes':
      return `A plain count in the end, as good as the models’ suggestions.${without > 0 ? ` ${asCount(without)} ${without === 1 ? 'code has no model and is' : 'codes have no model and are'} searched for.` : ''}`;
    case 'hand':
      return 'Every answer is coded without suggestions.';
    case 'models':
      return 'Nothing is counted: shares are estimated, corrected by what you read of the check.';
  }
}
