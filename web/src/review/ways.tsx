import type { Question, StudyDetail, WhatIsLeft } from '@yellow-thread/contract';
import type { Way, WayToFinish } from '@yellow-thread/core/review';
import { useState } from 'react';
import { Link } from 'react-router';
import { stopPath } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { LeaveToModels } from './leaveToModels.js';
import { waysTexts } from './texts.js';

const percent = new Intl.NumberFormat(undefined, { style: 'percent' });

/** "about 4 minutes", "about 2 hours". */
function asDuration(seconds: number): string {
  if (seconds < 45) return waysTexts.lessMinute;
  const minutes = Math.round(seconds / 60);
  if (minutes < 90) return waysTexts.about(waysTexts.minuteCounted(minutes));
  return waysTexts.about2(waysTexts.hourCounted(Math.round(minutes / 60)));
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
      <h2 id="ways">{waysTexts.waysEnd}</h2>
      <p className="text-soft">
        {first?.way === 'read' && waysTexts.whatOpenCanRead(asDuration(first.seconds))}
        {left.sampleOpen > 0 && waysTexts.drawnCodingHandRead(left.sampleOpen)}
        {waysTexts.times(own)}
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
                {waysTexts.leaveRestModels}
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
                {way.way === 'estimates' ? '' : waysTexts.trainFirst}{' '}
                {way.way !== 'estimates' && (
                  <Link to={`${base}/train`} className="underline">
                    {waysTexts.train}
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
  estimates: waysTexts.reportEstimatesNow,
  read: waysTexts.readAnswerAnswerSuggestions,
  codes: waysTexts.decideCodeCode,
  hand: waysTexts.codeHandWhatLeft,
  models: waysTexts.letModelsDecideRest,
};
const buttons: Record<Exclude<Way, 'models'>, string> = {
  estimates: waysTexts.seeEstimates,
  read: waysTexts.readThem,
  codes: waysTexts.goReview,
  hand: waysTexts.goCode,
};

function workOf({ way, work, seconds }: WayToFinish): string {
  switch (way) {
    case 'estimates':
      return waysTexts.noMoreWork;
    case 'codes':
      return waysTexts.modelsUnsureOthersBulk(work, asDuration(seconds));
    case 'models':
      return waysTexts.check(work, asDuration(seconds));
    case 'read':
    case 'hand':
      return waysTexts.differentWords(work, asDuration(seconds));
  }
}

function certaintyOf({ way }: WayToFinish, { widest, notEstimated, codes }: WhatIsLeft): string {
  const without = codes.filter(
    ({ verdict, undecided }) => verdict === null && undecided > 0,
  ).length;
  switch (way) {
    case 'estimates':
      return widest
        ? waysTexts.widestIntervalAmongThemes(
            widest.name,
            percent.format(widest.interval[0]),
            percent.format(widest.interval[1]),
          )
        : (notEstimated ?? '');
    case 'read':
      return waysTexts.everyAnswerReadTable;
    case 'codes':
      return waysTexts.plainCountEndGood(without);
    case 'hand':
      return waysTexts.everyAnswerCodedWithout;
    case 'models':
      return waysTexts.nothingCountedSharesEstimated;
  }
}
