import type { LedgerAnswer, Mention } from '@yellow-thread/contract';
import { WORTH_A_LOOK } from '@yellow-thread/core/review';
import { Check, X, type LucideIcon } from 'lucide-react';
import type { SeenCodebook } from '../data/codebook.js';
import { Knot } from '../parts/knot.js';
import { asShare } from '../lib/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import type { Proposal } from './proposals.js';
import { suggestedTexts } from './texts.js';

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
  settled || inSample
    ? []
    : suggestions.filter(({ probability }) => probability >= WORTH_A_LOOK).slice(0, most);

const suggested =
  'inline-flex items-center gap-1.5 rounded border border-dashed border-rule px-1 text-[13px] leading-6 text-soft';

/** What can be done with a suggestion; the keys do the same, so that Tab passes it by. */
function Act({
  name,
  icon: Icon,
  onClick,
}: {
  name: string;
  icon: LucideIcon;
  onClick: () => void;
}) {
  return (
    <button
      type="button"
      tabIndex={-1}
      className="rounded p-0.5 hover:bg-wash"
      aria-label={name}
      onClick={onClick}
    >
      <Icon size={13} aria-hidden />
    </button>
  );
}

/** What is suggested for an answer, hollow beside what somebody gave: codes, or that nothing applies. */
export function Suggested({
  answer,
  offersNothing,
  codebook,
  onDecide,
  onNothing,
}: {
  answer: LedgerAnswer;
  /** Whether it may be suggested that nothing applies: of all else the models may know too few codes. */
  offersNothing: boolean;
  codebook: SeenCodebook;
  onDecide: (mention: Mention, accepted: boolean) => void;
  onNothing: () => void;
}) {
  const { settled, inSample, mentions, nothingLikely } = answer;
  const nothing = offersNothing && nothingLikely && !settled && !inSample && mentions.length === 0;
  return (
    <>
      {nothing && (
        <span title={suggestedTexts.noCodeModelsLearnt} className={suggested}>
          <Knot state="open" label={suggestedTexts.suggested} />
          {suggestedTexts.nothingApplies}
          <Act name={suggestedTexts.nothingAppliesSettle} icon={Check} onClick={onNothing} />
        </span>
      )}
      <SuggestedCodes answer={answer} codebook={codebook} onDecide={onDecide} />
    </>
  );
}

function SuggestedCodes({
  answer,
  codebook,
  onDecide,
}: Omit<Parameters<typeof Suggested>[0], 'offersNothing' | 'onNothing'>) {
  return shownSuggestions(answer).map(({ codeId, probability }) => {
    const code = codebook.byId.get(codeId);
    if (!code) return null;
    const decide = (accepted: boolean) =>
      onDecide(
        {
          id: crypto.randomUUID(),
          responseId: answer.id,
          codeId,
          coderId: 0,
          start: null,
          end: null,
          typical: false,
          origin: 'accepted',
          createdAt: new Date().toISOString(),
        },
        accepted,
      );
    return (
      <span
        key={codeId}
        title={suggestedTexts.suggestedProbability(probability)}
        className={suggested}
      >
        <Knot state="open" label={suggestedTexts.suggested} />
        <StitchMark look={code.look} width={14} />
        {code.name}
        <span className="figures">{asShare(probability)}</span>
        <Act name={suggestedTexts.accept(code.name)} icon={Check} onClick={() => decide(true)} />
        <Act name={suggestedTexts.refuse(code.name)} icon={X} onClick={() => decide(false)} />
      </span>
    );
  });
}

/** A code proposed where answers are read one by one: hollow, until Enter accepts what is shown. */
export function Proposed({
  proposal: { codeId, probability },
  number,
  codebook,
  onToggle,
}: {
  proposal: Proposal;
  /** The digit that takes it away. */
  number: number;
  codebook: SeenCodebook;
  onToggle: () => void;
}) {
  const code = codebook.byId.get(codeId);
  if (!code) return null;
  const likely = probability === null ? '' : suggestedTexts.probability(probability);
  return (
    <span
      data-proposed={codeId}
      title={suggestedTexts.proposedTakesAway(likely, number)}
      className={suggested}
    >
      <Knot state="open" label={suggestedTexts.proposed} />
      <StitchMark look={code.look} width={14} />
      <span style={{ color: code.look.ink }}>{code.name}</span>
      <kbd className="text-[11px]">{number}</kbd>
      <Act name={suggestedTexts.takeAway(code.name)} icon={X} onClick={onToggle} />
    </span>
  );
}

/** What else may be meant, each given by its digit. */
export function AlsoOffered({
  proposals,
  codebook,
  onToggle,
}: {
  proposals: readonly Proposal[];
  codebook: SeenCodebook;
  onToggle: (codeId: string) => void;
}) {
  const others = proposals.flatMap((proposal, p) => {
    const code = codebook.byId.get(proposal.codeId);
    return proposal.isShown || !code ? [] : [{ code, number: p + 1 }];
  });
  if (others.length === 0) return null;
  return (
    <p className="mt-1 flex flex-wrap items-center gap-x-3 gap-y-0.5 text-[13px] text-soft">
      {suggestedTexts.also}
      {others.map(({ code, number }) => (
        <button
          key={code.id}
          type="button"
          tabIndex={-1}
          aria-label={suggestedTexts.give(code.name)}
          className="inline-flex items-center gap-1 rounded hover:text-ink"
          onClick={() => onToggle(code.id)}
        >
          <kbd className="text-[11px]">{number}</kbd> {code.name}
        </button>
      ))}
    </p>
  );
}
