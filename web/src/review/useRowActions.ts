import type { Mention, Question, StudyDetail, SuggestedAnswer } from '@yellow-thread/contract';
import type { Span } from '@yellow-thread/core/text';
import type { DrawnCode } from '../data/codebook.js';
import { useSession } from '../data/people.js';
import { useDecide, useUnsure } from '../data/review.js';
import type { Asking, RowActions } from './suggestionRow.js';

/** What can be done with the active suggestion, by key or by pointer. */
export function useRowActions({
  study,
  question,
  code,
  suggestion,
  passage,
  asking,
  mark,
  ask,
  toggleReasons,
  goOn,
}: {
  study: StudyDetail;
  question: Question;
  code: DrawnCode;
  /** None where the list is empty. */
  suggestion: SuggestedAnswer | undefined;
  passage: Span | null;
  asking: Asking | null;
  mark: (passage: Span | null) => void;
  ask: (asking: Asking | null) => void;
  toggleReasons: () => void;
  goOn: () => void;
}): RowActions {
  const decide = useDecide(study.id, question.id, code.id);
  const changeUnsure = useUnsure(study.id, question.id, code.id);
  const coderId = useSession().data?.account?.id ?? 0;
  return {
    mark,
    ask,
    toggleReasons,
    decide: (state) => {
      if (!suggestion) return;
      const isNew = suggestion.state !== state || suggestion.bulk;
      const here = state === 'accepted' && passage ? { passage } : null;
      if (isNew || here) decide({ suggestion, state, ...here });
      mark(null);
    },
    give: (codeId) => {
      if (!suggestion) return;
      const other: Mention = {
        id: crypto.randomUUID(),
        responseId: suggestion.responseId,
        codeId,
        coderId,
        start: null,
        end: null,
        origin: 'hand',
        typical: false,
        createdAt: new Date().toISOString(),
      };
      if (asking === 'instead') decide({ suggestion, state: 'refused', other });
      else decide({ suggestion, state: 'accepted', other, ...(passage && { passage }) });
      goOn();
    },
    unsure: () => void (suggestion && changeUnsure(suggestion)),
  };
}
