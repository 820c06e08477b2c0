import { isNoAnswer, noAnswerKey, noAnswerKeys } from './noAnswer.js';
import {
  isBackground,
  type ColumnRole,
  type ColumnSetting,
  type SheetSettings,
} from './settings.js';
import type { ProposedNoAnswer } from './valueCounts.js';
import { writingsFor, type Writing } from './values.js';

const holdsBackground = (role: ColumnRole) =>
  isBackground(role) || role === 'ticked' || role === 'choices';

/** Wordings of the questions that columns hold answers to. */
export const wordingsOf = ({ columns }: Pick<SheetSettings, 'columns'>): string[] => [
  ...new Set(columns.filter(({ role }) => role === 'question').map(({ name }) => name)),
];

/** Names of the closed variables that an "other, please specify" can belong to. */
export const closedNames = ({ columns }: Pick<SheetSettings, 'columns'>): string[] =>
  columns.filter(({ role }) => role === 'category' || role === 'choices').map(({ name }) => name);

/**
 * A column in another role: what it is called stays where that still makes sense.
 *
 * @param values some of its cells, by which numbers and dates are read as most of them can be
 */
export function withRole({
  column,
  role,
  head,
  settings,
  values = [],
}: {
  column: ColumnSetting;
  role: ColumnRole;
  head: string;
  settings: Pick<SheetSettings, 'columns'>;
  values?: readonly string[] | undefined;
}): ColumnSetting {
  // a cell of several choices is one of several codes
  if (role === 'codes') return { ...column, role, name: wordingsOf(settings)[0] ?? '', of: '' };
  const keeps = holdsBackground(role) && holdsBackground(column.role);
  return {
    role,
    name: keeps ? column.name : head,
    of: '',
    separator: role === 'choices' ? column.separator || ';' : '',
    writing: role === column.role ? column.writing : writingIn(role, values),
  };
}

function writingIn(role: ColumnRole, values: readonly string[]): Writing {
  if (role === 'date') return writingsFor('date', values)[0] ?? '';
  return role === 'number' || role === 'weight' ? (writingsFor('number', values)[0] ?? '') : '';
}

type NoAnswerSettings = Pick<SheetSettings, 'noAnswers' | 'answersDespite'>;

/** True when a response to this question counts as no answer. */
export const countsAsNoAnswer = (
  { noAnswers, answersDespite }: NoAnswerSettings,
  question: string,
  text: string,
): boolean =>
  isNoAnswer(text, noAnswerKeys(noAnswers)) &&
  !answersDespite.some(
    (one) => one.question === question && noAnswerKey(one.text) === noAnswerKey(text),
  );

/**
 * Decides whether a text is an answer to one question. The list of no-answers is the study's: what is put on
 * it for one question stays the answer to the others that it was.
 */
export function decideNoAnswer({
  settings,
  questions,
  question,
  text,
  isAnswer,
}: {
  settings: NoAnswerSettings;
  questions: readonly { wording: string; proposed: readonly Pick<ProposedNoAnswer, 'text'>[] }[];
  question: string;
  text: string;
  isAnswer: boolean;
}): NoAnswerSettings {
  const key = noAnswerKey(text);
  const { noAnswers } = settings;
  const answersDespite = settings.answersDespite.filter(
    (one) => one.question !== question || noAnswerKey(one.text) !== key,
  );
  if (isAnswer) return { noAnswers, answersDespite: [...answersDespite, { question, text }] };
  if (isNoAnswer(text, noAnswerKeys(noAnswers))) return { noAnswers, answersDespite };
  const elsewhere = questions
    .filter((one) => one.wording !== question)
    .flatMap(({ wording, proposed }) =>
      proposed
        .filter((one) => noAnswerKey(one.text) === key)
        .map((one) => ({ question: wording, text: one.text })),
    );
  return { noAnswers: [...noAnswers, text], answersDespite: [...answersDespite, ...elsewhere] };
}
