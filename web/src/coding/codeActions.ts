import type { CodeCreate, Mention } from '@yellow-thread/contract';
import { passageIn } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import { toast } from 'sonner';
import { mentionByHand, type ActiveAnswer } from './answerPlace.js';
import { shownSuggestions } from './suggested.js';
import { answerActionsTexts } from './texts.js';

/** What is made together with its first mention. */
export interface MadeWith {
  newCode?: CodeCreate;
  newTheme?: { id: string; name: string };
}

/** What can be done with codes at the place where one is. */
export function codeActions(at: ActiveAnswer) {
  const { answer, accountId, place, position, toSame, before, last, target, onChange } = at;
  const mentionOf = (codeId: string, passage: Span | null) =>
    mentionByHand({ responseId: answer.id, codeId, coderId: accountId }, passage);
  const withLast = (act: (mention: Mention) => void) => () =>
    last ? act(last) : void toast(answerActionsTexts.noCodeHereYet);
  return {
    apply: (codeId: string, made: MadeWith) => {
      const { replacing, ...there } = place;
      const replaced = answer.mentions.find((mention) => mention.id === replacing);
      if (replaced && !made.newCode)
        onChange({ do: 'edit', from: replaced, to: { ...replaced, codeId } });
      else {
        const mention = mentionOf(codeId, replaced ? passageOf(replaced) : target);
        const isThere = answer.mentions.some(
          (one) => one.codeId === codeId && one.start === mention.start && one.end === mention.end,
        );
        if (isThere) return void toast(answerActionsTexts.codeHereAlready);
        onChange({ do: 'add', mention, toSame, ...made });
        if (replaced) onChange({ do: 'remove', mention: replaced, toSame });
      }
      if (place.passage || replacing) position.goTo({ ...there, passage: null });
    },
    /** Gives a code to a passage, wherever one is. */
    give: (codeId: string, passage: Span) =>
      onChange({ do: 'add', mention: mentionOf(codeId, passage), toSame }),
    /** Accepts or refuses the most likely suggestion that is shown. */
    decide: (accepted: boolean) => {
      const [likeliest] = shownSuggestions(answer);
      if (!likeliest) return void toast(answerActionsTexts.nothingSuggestedHere);
      const mention: Mention = { ...mentionOf(likeliest.codeId, null), origin: 'accepted' };
      onChange({ do: 'decide', mention, accepted, toSame });
    },
    /** Codes a near duplicate as the answer before it was coded. */
    asBefore: () => {
      if (!before) return void toast(answerActionsTexts.answerNearlySameOne);
      const there = new Set(answer.mentions.map(({ codeId }) => codeId));
      for (const mention of before.mentions) {
        if (there.has(mention.codeId)) continue;
        const passage = passageOf(mention);
        const here = passage && passageIn(before.text, passage, answer.text);
        onChange({ do: 'add', toSame, mention: mentionOf(mention.codeId, here) });
      }
    },
    /** Lets the next code take the place of the last. */
    exchange: withLast(({ id }) => position.goTo({ ...place, passage: null, replacing: id })),
    moveToPassage: withLast((mention) => {
      if (!place.passage) return void toast(answerActionsTexts.markWordsShiftArrows);
      const { start, end } = place.passage;
      onChange({ do: 'edit', from: mention, to: { ...mention, start, end } });
      position.goTo({ ...place, passage: null });
    }),
    typical: withLast((mention) =>
      onChange({ do: 'edit', from: mention, to: { ...mention, typical: !mention.typical } }),
    ),
    removeLast: () => last && onChange({ do: 'remove', mention: last, toSame }),
  };
}

const passageOf = ({ start, end }: Mention) =>
  start === null || end === null ? null : { start, end };
