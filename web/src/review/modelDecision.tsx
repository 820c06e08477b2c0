import type { Question, StudyDetail, WhatIsLeft } from '@yellow-thread/contract';
import { Link } from 'react-router';
import { useWithdrawFromModel } from '../data/finish.js';
import { stopPath } from '../frame/place.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { asCount, asDate, counted } from '../parts/numbers.js';

/** What was left to the models, and how far its check is read. */
export function ModelDecision({
  model: { by, at, check },
  study,
  question,
}: {
  model: NonNullable<WhatIsLeft['model']>;
  study: StudyDetail;
  question: Question;
}) {
  const withdraw = useWithdrawFromModel(study.id, question.id);
  const toRead = check.drawn - check.read;
  return (
    <section aria-labelledby="by-model">
      <h2 id="by-model">Left to the models</h2>
      <p>
        {by}, {asDate(at)}.{' '}
        {toRead > 0
          ? `${asCount(check.read)} of ${counted(check.drawn, 'answer')} of the check are read; until all are, the estimates rest on the random sample.`
          : `The check of ${counted(check.drawn, 'answer')} is read: the estimates are corrected by it.`}
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-3">
        {toRead > 0 && (
          <Link
            to={`${stopPath(study.id, 'code', question.id)}?show=sample_open`}
            className="rounded border border-ink bg-ink px-3 py-1.5 font-medium text-paper hover:opacity-90"
          >
            Read the {asCount(toRead)} left
          </Link>
        )}
        <Link
          to={`${stopPath(study.id, 'report', question.id)}?counts=estimated`}
          className="underline"
        >
          See the estimates
        </Link>
        <Button look="bare" disabled={withdraw.isPending} onClick={() => withdraw.mutate()}>
          Open them again
        </Button>
      </p>
      {withdraw.error && <ProblemNote error={withdraw.error} />}
    </section>
  );
}
