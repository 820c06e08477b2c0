import type { LedgerOrder, Question, StudyDetail } from '@yellow-thread/contract';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { useAddressPart } from '../frame/address.js';
import { useTrain, useTraining } from '../data/learning.js';
import { useJob } from '../data/sheets.js';
import { stopPath } from '../frame/studyLocation.js';
import { Choice } from '../parts/field.js';
import { readingBarTexts } from './texts.js';

const orders: readonly [LedgerOrder, string][] = [
  ['similar', readingBarTexts.likeAnswersTogether],
  ['surest', readingBarTexts.surestFirst],
  ['telling', readingBarTexts.leastSureFirst],
];

/** After so many answers more the models are trained again, so that they propose what was learnt meanwhile. */
const EVERY = 50;
/** The list stays as it is while one works through it. */
const LIST: ReadonlySet<string> = new Set(['ledger']);

/** Trains again while one reads. @returns whether a training is in progress */
function useRetraining(study: number, question: Question): boolean {
  const training = useTraining(study, question.id).data;
  const train = useTrain(study, question.id);
  const { mutate, isPending } = train;
  const known = training?.job ?? null;
  const { underWay } = useJob(study, train.data?.id ?? known?.id ?? null, known, LIST);
  /** With how many settled answers it was tried: one that failed is not tried again at once. */
  const tried = useRef(0);
  const run = training?.run;
  const { settled } = question;
  useEffect(() => {
    if (!run || isPending || underWay) return;
    if (settled < Math.max(run.settled, tried.current) + EVERY) return;
    tried.current = settled;
    mutate({ scope: run.scope, learnFromBulk: run.learntFromBulk });
  }, [run, settled, isPending, underWay, mutate]);
  return isPending || underWay;
}

/** What is read one by one, in which order, and the way back. */
export function ReadingBar({ study, question }: { study: StudyDetail; question: Question }) {
  const [order, setOrder] = useAddressPart('order');
  const isTraining = useRetraining(study.id, question);
  const left = question.answered - question.settled - question.decided;
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule bg-card px-6 py-2">
      <p>
        <span className="font-semibold">{readingBarTexts.readingAnswerAnswer}</span>{' '}
        <kbd>{readingBarTexts.enter}</kbd> {readingBarTexts.acceptsExactlyWhatShown}
        <span className="figures text-soft" role="status">
          {readingBarTexts.left(left)}
          {isTraining && readingBarTexts.learningWhatYouRead}
        </span>
      </p>
      <span className="ml-auto flex items-center gap-4">
        <Choice
          label={readingBarTexts.order}
          value={order ?? 'similar'}
          onChange={({ target }) => setOrder(target.value)}
        >
          {orders.map(([one, name]) => (
            <option key={one} value={one}>
              {name}
            </option>
          ))}
        </Choice>
        <Link to={`/studies/${study.id}/questions/${question.id}/left`} className="underline">
          {readingBarTexts.whatLeft}
        </Link>
        <Link to={stopPath(study.id, 'code', question.id)} className="underline">
          {readingBarTexts.stopReading}
        </Link>
      </span>
    </div>
  );
}
