import type { Review } from '@yellow-thread/contract';
import type { DrawnCode } from '../data/codebook.js';
import { useCloseCodes, useReopenCode } from '../data/finish.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { closeCodeTexts } from './texts.js';

/** Closes a code once every suggestion of it is decided, or opens it again. */
export function CloseCode({ code, review }: { code: DrawnCode; review: Review }) {
  const { study, question } = useStudyLocation();
  const close = useCloseCodes(study.id, question.id);
  const reopen = useReopenCode(study.id, question.id);
  const error = close.error ?? reopen.error;
  if (review.isClosed && review.undecided === 0)
    return (
      <p className="mt-2 flex flex-wrap items-center gap-3">
        {closeCodeTexts.laterTrainingsLeaveAnswers}
        <Button look="bare" disabled={reopen.isPending} onClick={() => reopen.mutate(code.id)}>
          {closeCodeTexts.openAgain}
        </Button>
        {error && <ProblemNote error={error} />}
      </p>
    );
  if (review.open.length > 0 || review.undecided === 0) return null;
  return (
    <p className="mt-2 flex flex-wrap items-center gap-3">
      <span>
        {closeCodeTexts.noSuggestionModelExpects(
          review.undecided,
          code.name,
          review.unsuggested.toFixed(1),
        )}
      </span>
      <Button
        look="main"
        disabled={close.isPending}
        onClick={() => close.mutate({ codes: [{ codeId: code.id, how: 'suggestions' }] })}
      >
        {closeCodeTexts.mentionCloseCode}
      </Button>
      {error && <ProblemNote error={error} />}
    </p>
  );
}
