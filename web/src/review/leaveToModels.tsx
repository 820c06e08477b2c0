import type { Question, StudyDetail, WhatIsLeft } from '@yellow-thread/contract';
import { isReliable } from '@yellow-thread/core/review';
import { useState } from 'react';
import { useDrawnCodebook } from '../data/codebook.js';
import { useDecideByModel } from '../data/finish.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { leaveToModelsTexts } from './texts.js';

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
      <p>{leaveToModelsTexts.modelsDecideCodesLines(left.open)}</p>
      <Field
        label={leaveToModelsTexts.answersCheck}
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
          <span>{leaveToModelsTexts.noModelHereRely(names, unreliable.length)}</span>
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
        {leaveToModelsTexts.leaveModels(left.open)}
      </Button>
      {decide.error && <ProblemNote error={decide.error} />}
    </div>
  );
}
