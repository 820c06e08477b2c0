import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import * as common from '@zxcvbn-ts/language-common';
import * as english from '@zxcvbn-ts/language-en';

/** Fewest guesses that a password must withstand: 10^10, "very unguessable" is more (zxcvbn, Wheeler 2016). */
const LEAST_SCORE = 3;
/** Time grows with the square of the length, and nothing behind this makes a password weaker. */
const READ_CHARACTERS = 40;

const rating = new ZxcvbnFactory({
  dictionary: { ...common.dictionary, ...english.dictionary },
  graphs: common.adjacencyGraphs,
  translations: english.translations,
});

/**
 * Why a password would be guessed too soon: common ones, names, dates, runs of keys and the like.
 *
 * @param about words that whoever guesses would try first, the person's name among them
 * @returns null for one that is strong enough
 */
export function weaknessOf(password: string, about: string[]): string | null {
  const { score, feedback } = rating.check(password.slice(0, READ_CHARACTERS), about);
  return score >= LEAST_SCORE ? null : (feedback.warning ?? '');
}
