import { useSession } from '../data/people.js';
import type { ActiveAnswer, AnswerPlace } from './answerPlace.js';
import { codeActions } from './codeActions.js';
import { lineActions, noteActions } from './lineActions.js';
import { settleActions } from './settleActions.js';

/** What can be done at the place where one is. */
export function useAnswerActions(at: AnswerPlace) {
  const account = useSession().data?.account ?? null;
  const { answer, lines, byLine, place } = at;
  const line = lines[place.line];
  const here = byLine[place.line] ?? answer.mentions.filter(({ start }) => start === null);
  const active: ActiveAnswer = {
    ...at,
    account,
    accountId: account?.id ?? 0,
    line,
    target: place.passage ?? line ?? null,
    last: here.at(-1),
  };
  return {
    ...codeActions(active),
    ...lineActions(active),
    ...noteActions(active),
    ...settleActions(active),
  };
}

export type AnswerActions = ReturnType<typeof useAnswerActions>;
