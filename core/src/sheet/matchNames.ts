import { editDistance, foldForMatching } from '../text/index.js';
import type { RoleGuess } from './guessRoles.js';
import type { BackgroundKind } from './settings.js';

/** What a study already has by name, which the columns of a later sheet are matched to. */
export interface KnownNames {
  variables: { name: string; kind: BackgroundKind }[];
  questions: string[];
}

/**
 * Ties the columns of a later sheet to the variables and questions of the study that have the same name, or
 * nearly: without case, white space and punctuation, or with one letter in twelve different. The reason says so.
 */
export function matchNames(
  guesses: readonly RoleGuess[],
  { variables, questions }: KnownNames,
): RoleGuess[] {
  const taken = new Set<string>();
  const find = (name: string, known: readonly string[]) => {
    const free = known.filter((one) => !taken.has(one));
    const match =
      free.find((one) => one === name) ??
      free.find((one) => bare(one) === bare(name)) ??
      free.find((one) => nearly(bare(one), bare(name)));
    if (match !== undefined) taken.add(match);
    return match;
  };
  return guesses.map((guess) => {
    if (guess.role === 'id' || guess.role === 'weight') return guess;
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

const sameOrNear = (written: string, known: string) =>
  written === known ? 'the study has it already' : `taken for “${known}” of the study`;

const bare = (name: string) => foldForMatching(name).replaceAll(/[\p{P}\s]+/gu, '');

function nearly(one: string, other: string): boolean {
  const most = Math.floor(Math.min(one.length, other.length) / 12);
  return most > 0 && editDistance(one, other, most) <= most;
}
