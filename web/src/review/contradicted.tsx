import type { DrawnCodebook } from '../data/codebook.js';
import { useAnswers } from '../data/coding.js';
import { useDecideOne, useReviews } from '../data/review.js';
import type { StudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { asShare } from '../lib/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import { contradictedTexts } from './texts.js';

const mostShown = 50;

/** Bulk decisions of which the models in use are sure of the opposite. They never learn from these. */
export function Contradicted({
  study,
  question,
  codebook,
}: StudyLocation & { codebook: DrawnCodebook }) {
  const contradicted = useReviews(study.id, question.id).data?.contradicted ?? [];
  const shown = contradicted.slice(0, mostShown);
  const ids = [...new Set(shown.map((one) => one.responseId))];
  const answers = useAnswers({
    study: study.id,
    question: question.id,
    ids,
    blocks: ids.length > 0 ? [0] : [],
  });
  const decide = useDecideOne(study.id, question.id);
  return (
    <>
      <p className="text-soft">{contradictedTexts.decidedBulkModelsTrained}</p>
      <ul>
        {shown.map(({ codeId, responseId, state, probability }) => {
          const code = codebook.byId.get(codeId);
          return (
            <li key={`${codeId} ${responseId}`} className="border-b border-rule py-2">
              <p className="flex items-center gap-2 text-[13px] text-soft">
                {code && <StitchMark look={code.look} />}
                {code?.name} {contradictedTexts.bulkNow(state)}
                <span className="figures">{asShare(probability)}</span>
              </p>
              <p className="voice">{answers.get(responseId)?.text ?? '…'}</p>
              <p className="mt-1 flex gap-2">
                {(['accepted', 'refused'] as const).map((to) => (
                  <Button
                    key={to}
                    className="py-0.5"
                    disabled={decide.isPending}
                    onClick={() => decide.mutate({ codeId, responseId, state: to })}
                  >
                    {to === 'accepted' ? contradictedTexts.applies : contradictedTexts.apply}
                  </Button>
                ))}
              </p>
            </li>
          );
        })}
      </ul>
    </>
  );
}
