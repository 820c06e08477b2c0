import type { Question, StudyDetail, WhatIsLeft } from '@yellow-thread/contract';
import { isReliable } from '@yellow-thread/core/review';
import { useState } from 'react';
import { useDrawnCodebook } from '../data/codebook.js';
import { useDecideByModel } from '../data/finish.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { counted } from '../parts/numbers.js';

/** How many of the models' decisions are checked unless somebody says otherwise. */
export const USUAL_CHECK = 50;

/** What is asked before everything open is left to the models: the size of the check, and codes without a good model. */
export function LeaveToModels({
  left,
  study,
  question,
  onDone,
}: {
  left: WhatIsLeft;
  study: StudyDetail;
  question: Question;
  onDone: () => void;
}) {
  const decide = useDecideByModel(study.id, question.id);
  const codebook = useDrawnCodebook(study.id);
  const [check, setCheck] = useState(Math.min(USUAL_CHECK, left.open));
  const [relies, setRelies] = useState(false);
  const unreliable = left.codes.filter(
    ({ verdict, closed, undecided }) => !closed && undecided > 0 && !isReliable(verdict),
  );
  const names = new Intl.ListFormat(undefined).format(
    unreliable.map(({ codeId }) => codebook?.byId.get(codeId)?.name ?? ''),
  );
  return (
    <div className="col-span-2 mt-3 flex flex-col items-start gap-3 rounded border border-rule bg-card p-4">
      <p>
        The models decide {counted(left.open, 'answer')} at their codes’ lines. A random few of
        these are read by you, without suggestions: what you find corrects the estimates.
      </p>
      <Field
        label="Answers to check"
        type="number"
        min={2}
        max={left.open}
        value={check}
        className="w-40"
        onChange={(event) => setCheck(Number(event.target.value))}
      />
      {unreliable.length > 0 && (
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-1 accent-ink"
            checked={relies}
            onChange={(event) => setRelies(event.target.checked)}
          />
          <span>
            {names}: there is no model here to rely on. Leave{' '}
            {unreliable.length === 1 ? 'it' : 'them'} to the check alone.
          </span>
        </label>
      )}
      <Button
        look="main"
        disabled={decide.isPending || check < 2 || (unreliable.length > 0 && !relies)}
        onClick={() =>
          decide.mutate(
            { check, relied: unreliable.map(({ codeId }) => codeId) },
            { onSuccess: onDone },
          )
        }
      >
        Leave {counted(left.open, 'answer')} to the models
      </Button>
      {decide.error && <ProblemNote error={decide.error} />}
    </div>
  );
}
