import type { LedgerAnswer, Mention } from '@yellow-thread/contract';
import { Check, X } from 'lucide-react';
import type { DrawnCodebook } from '../data/codebook.js';
import { Knot } from '../parts/knot.js';
import { asShare } from '../parts/numbers.js';
import { StitchMark } from '../parts/stitch.js';

const most = 4;

/**
 * What is suggested for an answer and shown beside it. In a sample that is coded by hand nothing is: what is learnt
 * from and estimated with must not be said by the model first.
 */
export const shownSuggestions = ({
  settled,
  inSample,
  suggestions,
}: Pick<LedgerAnswer, 'settled' | 'inSample' | 'suggestions'>) =>
  settled || inSample ? [] : suggestions.slice(0, most);

/** Suggested codes of an answer, hollow beside those that somebody gave. */
export function SuggestedCodes({
  answer,
  codebook,
  onDecide,
}: {
  answer: LedgerAnswer;
  codebook: DrawnCodebook;
  onDecide: (mention: Mention, accepted: boolean) => void;
}) {
  return shownSuggestions(answer).map(({ codeId, probability }) => {
    const code = codebook.byId.get(codeId);
    if (!code) return null;
    const decide = (accepted: boolean) =>
      onDecide(
        {
          ...{ id: crypto.randomUUID(), responseId: answer.id, codeId, coderId: 0 },
          ...{ start: null, end: null, typical: false },
          origin: 'accepted',
          createdAt: new Date().toISOString(),
        },
        accepted,
      );
    const act = 'rounded p-0.5 hover:bg-wash';
    return (
      <span
        key={codeId}
        title={`suggested, probability ${asShare(probability)}`}
        className="inline-flex items-center gap-1.5 rounded border border-dashed border-rule px-1 text-[13px] leading-6 text-soft"
      >
        <Knot state="open" label="suggested" />
        <StitchMark look={code.look} width={14} />
        {code.name}
        <span className="figures">{asShare(probability)}</span>
        <button
          type="button"
          tabIndex={-1}
          className={act}
          aria-label={`Accept ${code.name}`}
          onClick={() => decide(true)}
        >
          <Check size={13} aria-hidden />
        </button>
        <button
          type="button"
          tabIndex={-1}
          className={act}
          aria-label={`Refuse ${code.name}`}
          onClick={() => decide(false)}
        >
          <X size={13} aria-hidden />
        </button>
      </span>
    );
  });
}
