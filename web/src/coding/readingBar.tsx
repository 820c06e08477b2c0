import type { LedgerOrder, Question, StudyDetail } from '@yellow-thread/contract';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { useAddress } from '../frame/address.js';
import { useTrain, useTraining } from '../data/learning.js';
import { useJob } from '../data/sheets.js';
import { stopPath } from '../frame/place.js';
import { Choice } from '../parts/field.js';
import { counted } from '../parts/numbers.js';

const orders: readonly [LedgerOrder, string][] = [
  ['similar', 'like answers together'],
  ['surest', 'the surest first'],
  ['telling', 'the least sure first'],
];

/** After so many answers more the models are trained again, so that they propose what was learnt meanwhile. */
const EVERY = 50;
/** The list stays as it is while one works through it. */
const LIST: ReadonlySet<string> = new Set(['ledger']);

/** Trains again while one reads. @returns whether a training is under way */
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
  const [search, changeAddress] = useAddress();
  const isTraining = useRetraining(study.id, question);
  const left = question.answered - question.settled - question.decided;
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule bg-card px-6 py-2">
      <p>
        <span className="font-semibold">Reading answer by answer.</span> <kbd>Enter</kbd> accepts
        exactly what is shown.{' '}
        <span className="figures text-soft" role="status">
          {counted(left, 'answer')} left
          {isTraining && ' · learning from what you read'}
        </span>
      </p>
      <span className="ml-auto flex items-center gap-4">
        <Choice
          label="Order"
          value={search.get('order') ?? 'similar'}
          onChange={({ target }) =>
            changeAddress((next) => {
              next.set('order', target.value);
              return next;
            })
          }
        >
          {orders.map(([order, name]) => (
            <option key={order} value={order}>
              {name}
            </option>
          ))}
        </Choice>
        <Link to={`/studies/${study.id}/questions/${question.id}/left`} className="underline">
          What is left
        </Link>
        <Link to={stopPath(study.id, 'code', question.id)} className="underline">
          Stop reading
        </Link>
      </span>
    </div>
  );
}
