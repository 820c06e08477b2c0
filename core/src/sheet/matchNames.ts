import { editDistance, foldForMatching } from '../text/index.js';
import type { RoleGuess } from './guessRoles.js';
import type { BackgroundKind, ColumnRole, ColumnSetting } from './settings.js';
import { matchNamesTexts } from '../wording/sheet.js';

/** What a study already has by name, which the columns of a later sheet are matched to. */
export interface KnownNames {
  variables: { name: string; kind: BackgroundKind }[];
  questions: string[];
  /** By the head of a column: what it was last imported as, and with which file. */
  before?: ReadonlyMap<string, { setting: ColumnSetting; fileName: string }>;
}

/**
 * Ties the columns of a later sheet to what the study has: a column that was imported before is what it was then, as
 * long as the study still has what it became; others are tied to the variables and questions of the same name, or
 * nearly: without case, white space and punctuation, or with one letter in twelve different. The reason says so.
 */
export function matchNames(
  guesses: readonly (RoleGuess & { head: string })[],
  known: KnownNames,
): RoleGuess[] {
  const { variables, questions } = known;
  const earlier = guesses.map(({ head }) => {
    const { setting, fileName } = known.before?.get(head) ?? {};
    return setting && isStillThere(setting, known)
      ? { ...setting, reason: matchNamesTexts.asIn(fileName) }
      : null;
  });
  const taken = new Set(earlier.flatMap((one) => (one ? [one.name] : [])));
  const hasEarlier = (role: ColumnRole) => earlier.some((one) => one?.role === role);
  const find = (name: string, known: readonly string[]) => {
    const free = known.filter((one) => !taken.has(one));
    const match =
      free.find((one) => one === name) ??
      free.find((one) => bare(one) === bare(name)) ??
      free.find((one) => nearly(bare(one), bare(name)));
    if (match !== undefined) taken.add(match);
    return match;
  };
  return guesses.map((guess, c) => {
    if (earlier[c]) return earlier[c];
    if (guess.role === 'id' || guess.role === 'weight')
      return hasEarlier(guess.role)
        ? { ...guess, role: 'category', reason: matchNamesTexts.anotherColumnBefore(guess.role) }
        : guess;
    const question = find(guess.name, questions);
    if (question !== undefined)
      return {
        ...guess,
        role: 'question',
        name: question,
        reason: sameOrNear(guess.name, question),
      };
    if (guess.role === 'question') return guess;
    const name = find(
      guess.name,
      variables.map((variable) => variable.name),
    );
    if (name === undefined) return guess;
    const { kind } = variables.find((variable) => variable.name === name)!;
    const role = kind === 'yes_no' && guess.role === 'ticked' ? guess.role : kind;
    return { ...guess, role, name, reason: sameOrNear(guess.name, name) };
  });
}

/** Whether the study has what a column was imported as: it may have been renamed or removed since. */
function isStillThere(
  { role, name }: ColumnSetting,
  { variables, questions }: KnownNames,
): boolean {
  switch (role) {
    case 'id':
    case 'weight':
    case 'leave_out':
      return true;
    case 'question':
    case 'codes':
      return questions.includes(name);
    case 'choices':
      return variables.some((variable) => variable.name.startsWith(`${name}: `));
    default: {
      const kind = role === 'ticked' ? 'yes_no' : role;
      return variables.some((variable) => variable.name === name && variable.kind === kind);
    }
  }
}

const sameOrNear = (written: string, known: string) =>
  written === known ? matchNamesTexts.studyAlready : matchNamesTexts.takenStudy(known);

const bare = (name: string) => foldForMatching(name).replaceAll(/[\p{P}\s]+/gu, '');

function nearly(one: string, other: string): boolean {
  const most = Math.floor(Math.min(one.length, other.length) / 12);
  return most > 0 && editDistance(one, other, most) <= most;
}
