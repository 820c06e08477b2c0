import { foldForMatching } from '../text/index.js';
import type { RoleGuess } from './guessRoles.js';
import { guessCodeColumnsTexts } from '../wording/sheet.js';

/** Adjacent columns of 0 and 1, right behind a question, from which they are taken as its codes and not as background. */
const LEAST_RUN = 4;

/**
 * Takes columns of 0 and 1 for codes that were given before: those called as a code of the codebook is, and those that
 * come in a run right behind an open question. They belong to the question before them.
 *
 * @param guesses what the columns seem to be, with their heads
 * @param known names of the study's codes, and the wordings of its questions
 */
export function guessCodeColumns<Guess extends RoleGuess & { head: string }>(
  guesses: readonly Guess[],
  known: { codes: readonly string[]; variables: readonly string[]; questions: readonly string[] },
): Guess[] {
  const codes = new Set(known.codes.map(foldForMatching));
  const variables = new Set(known.variables);
  const isFlag = ({ role, name }: Guess) =>
    (role === 'yes_no' || role === 'ticked') && !variables.has(name);
  const questionBefore = (c: number) =>
    guesses.slice(0, c).findLast(({ role }) => role === 'question')?.name;
  const runs = guesses.map(() => false);
  for (const [c, { role }] of guesses.entries()) {
    if (role !== 'question') continue;
    let end = c + 1;
    while (end < guesses.length && isFlag(guesses[end]!)) end += 1;
    if (end - c - 1 >= LEAST_RUN) runs.fill(true, c + 1, end);
  }
  return guesses.map((guess, c) => {
    if (!isFlag(guess)) return guess;
    const isNamed = codes.has(foldForMatching(guess.head));
    const question =
      questionBefore(c) ?? (known.questions.length === 1 ? known.questions[0] : undefined);
    if (question === undefined || !(isNamed || runs[c])) return guess;
    const reason = isNamed
      ? guessCodeColumnsTexts.codeCodebookCalled
      : guessCodeColumnsTexts.oneSeveralColumns0;
    return { ...guess, role: 'codes', name: question, separator: '', reason };
  });
}
