import type { Question, StudyDetail, WhatIsLeft } from '@yellow-thread/contract';
import { Link } from 'react-router';
import { useWithdrawFromModel } from '../data/finish.js';
import { stopPath } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { asDate } from '../lib/numbers.js';
import { modelDecisionTexts } from './texts.js';

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
      <h2 id="by-model">{modelDecisionTexts.leftModels}</h2>
      <p>
        {by}, {asDate(at)}.{' '}
        {toRead > 0
          ? modelDecisionTexts.checkReadUntilAll(check.read, check.drawn)
          : modelDecisionTexts.checkReadEstimatesCorrected(check.drawn)}
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-3">
        {toRead > 0 && (
          <Link
            to={`${stopPath(study.id, 'code', question.id)}?show=sample_open`}
            className="rounded border border-ink bg-ink px-3 py-1.5 font-medium text-paper hover:opacity-90"
          >
            {modelDecisionTexts.readLeft(toRead)}
          </Link>
        )}
        <Link
          to={`${stopPath(study.id, 'report', question.id)}?counts=estimated`}
          className="underline"
        >
          {modelDecisionTexts.seeEstimates}
        </Link>
        <Button look="bare" disabled={withdraw.isPending} onClick={() => withdraw.mutate()}>
          {modelDecisionTexts.openThemAgain}
        </Button>
      </p>
      {withdraw.error && <ProblemNote error={withdraw.error} />}
    </section>
  );
}
