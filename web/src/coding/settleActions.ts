import { toast } from 'sonner';
import { wasHelpedWith } from '../data/assistant.js';
import type { ActiveAnswer } from './answerPlace.js';
import { mentionOf as proposedMention, type Proposal } from './proposals.js';
import { shownSuggestions } from './suggested.js';
import { answerActionsTexts } from './texts.js';

/** How an answer is settled, opened again, or read with what is proposed for it. */
export function settleActions(at: ActiveAnswer) {
  const { answer, lines, position, toSame, reading, accountId, onChange } = at;
  const assisted = shownSuggestions(answer).length > 0 || wasHelpedWith(answer.id);
  const settle = (settled: boolean) =>
    onChange({ do: 'settle', responseId: answer.id, settled, toSame, assisted });
  const settleAndGoOn = () => {
    if (!answer.settled) settle(true);
    position.moveAnswer(1);
  };
  /** Settles the answer with what is proposed and was left standing. */
  const read = (proposals: readonly Proposal[]) => {
    const accept = proposals.map((one) => proposedMention(one, answer.id, lines, accountId));
    onChange({ do: 'read', responseId: answer.id, accept, toSame });
    position.moveAnswer(1);
  };
  const shown = reading?.proposals.filter(({ isShown }) => isShown) ?? [];
  /** Whether the answer is settled with what is proposed. */
  const isRead = reading !== null && !answer.settled && !answer.inSample;
  return {
    isRead,
    settle: () => {
      if (answer.mentions.length > 0) settleAndGoOn();
      else toast(answerActionsTexts.noCodeYetType);
    },
    acceptShown: () => {
      if (shown.length + answer.mentions.length > 0) read(shown);
      else toast(answerActionsTexts.noCodeProposedGive);
    },
    nothingApplies: () => {
      if (answer.mentions.length > 0) toast(answerActionsTexts.somethingAppliesTakeCodes);
      else if (isRead) read([]);
      else settleAndGoOn();
    },
    reopen: () => {
      if (answer.settled) settle(false);
    },
    /** Takes the last that is shown away. @returns whether anything is */
    removeLastShown: (): boolean => {
      if (!isRead || shown.length === 0) return false;
      reading.toggle(shown.at(-1)!.codeId);
      return true;
    },
    /** Takes what is proposed under a digit away, or gives what else is offered under it. */
    press: (digit: number) => {
      const proposal = reading?.proposals[digit - 1];
      if (proposal) reading?.toggle(proposal.codeId);
    },
  };
}
