import type { LedgerOrder, Question, StudyDetail } from '@yellow-thread/contract';
import { Link, useSearchParams } from 'react-router';
import { stopPath } from '../frame/place.js';
import { Choice } from '../parts/field.js';
import { asCount, counted } from '../parts/numbers.js';

const orders: readonly [LedgerOrder, string][] = [
  ['similar', 'like answers together'],
  ['surest', 'the surest first'],
  ['telling', 'the least sure first'],
];

/** Where a reading of answer by answer is begun. */
export const readingPath = (study: number, question: number): string =>
  `${stopPath(study, 'code', question)}?show=open&order=similar&reading=on`;

/** What is read one by one, in which order, and the way back. */
export function ReadingBar({
  study,
  question,
  total,
}: {
  study: StudyDetail;
  question: Question;
  /** Wordings in the list; null until it is known. */
  total: number | null;
}) {
  const [search, setSearch] = useSearchParams();
  const left = question.answered - question.settled - question.decided;
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule bg-card px-6 py-2">
      <p>
        <span className="font-semibold">Reading answer by answer.</span> <kbd>Enter</kbd> accepts
        exactly what is shown.{' '}
        <span className="figures text-soft" role="status">
          {counted(left, 'answer')} left{total !== null && ` of a list of ${asCount(total)}`}
        </span>
      </p>
      <span className="ml-auto flex items-center gap-4">
        <Choice
          label="Order"
          value={search.get('order') ?? 'similar'}
          onChange={(event) => {
            const next = new URLSearchParams(search);
            next.set('order', event.target.value);
            setSearch(next, { replace: true });
          }}
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
