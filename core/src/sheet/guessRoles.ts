import { foldForMatching } from '../text/index.js';
import { looksPersonal } from './personalData.js';
import type { ColumnProfile } from './profile.js';
import type { ColumnRole, ColumnSetting } from './settings.js';

/** What a column seems to be for, and why in a few words. */
export interface RoleGuess extends ColumnSetting {
  reason: string;
}

type Guess = { role: ColumnRole; reason: string } & Partial<ColumnSetting>;

/**
 * Guesses the role of each column from its name and its values. At most one column becomes the respondent
 * id and one the weight; the researcher may change all of it.
 */
export function guessRoles(profiles: readonly ColumnProfile[]): RoleGuess[] {
  const guesses = profiles.map((profile): RoleGuess => {
    const guess = guessRole(profile);
    return { name: profile.name, of: '', separator: '', ...guess };
  });
  for (const role of ['id', 'weight'] as const) {
    const first = guesses.findIndex((guess) => guess.role === role);
    for (const [c, guess] of guesses.entries())
      if (guess.role === role && c !== first) {
        const other = guessRole(profiles[c]!, role);
        const reason = `“${profiles[first]!.name}” already is the ${role}; ${other.reason}`;
        Object.assign(guess, other, { reason });
      }
  }
  tieOthers(profiles, guesses);
  return guesses;
}

const otherHead =
  /\b(?:other|sonstige[ns]?|andere[s]?|autre|otro)\b.*\b(?:specify|describe|which|text|what|name|angeben|welche)\b|\(?please specify\)?|[-_ :]other[-_ ]?text$/iu;

/** "Other, please specify" belongs to the closed question before it. */
function tieOthers(profiles: readonly ColumnProfile[], guesses: RoleGuess[]): void {
  for (const [c, guess] of guesses.entries()) {
    const { name, yesNo } = profiles[c]!;
    const holdsText = ['question', 'category', 'ticked'].includes(guess.role) && yesNo === 0;
    if (!otherHead.test(name) || !holdsText) continue;
    const closed = guesses
      .slice(0, c)
      .findLast((before) => before.role === 'category' || before.role === 'choices');
    if (!closed) continue;
    guess.role = 'question';
    guess.of = closed.name;
    guess.name = `${closed.name}: ${name}`;
    guess.reason = `what “other” in “${closed.name}” is; asked only of those who wrote something`;
  }
}

/** @param not a role that another column has already */
function guessRole(profile: ColumnProfile, not?: ColumnRole): Guess {
  const { filled, distinct, medianWords, rows, allDiffer } = profile;
  const name = foldForMatching(profile.name);
  if (filled === 0) return { role: 'leave_out', reason: 'it is empty' };
  const personal = looksPersonal(profile.name, [...profile.values.keys()].slice(0, 200));
  if (personal) return { role: 'leave_out', reason: `it looks like ${personal}` };
  if (
    not !== 'id' &&
    filled === rows &&
    allDiffer &&
    medianWords <= 1 &&
    (rows > 1 || /\bid\b/u.test(name))
  )
    if (looksLikeId(name, profile)) return { role: 'id', reason: `all ${rows} values differ` };
  const allNumbers = profile.numbers === filled;
  if (
    not !== 'weight' &&
    /^(?:weight|wt|wgt|weighting|gewicht|poids|peso)\b/u.test(name) &&
    allNumbers &&
    profile.nonNegative
  )
    return { role: 'weight', reason: 'it is named so, and all values are numbers from 0 up' };
  if (distinct <= 2 && profile.yesNo === filled)
    return filled < rows && distinct === 1
      ? { role: 'ticked', reason: 'one value or blank: a tick box' }
      : { role: 'yes_no', reason: 'all values say yes or no' };
  if (distinct === 1 && filled < rows && profile.longest <= 60)
    return { role: 'ticked', reason: 'one value or blank: a tick box' };
  if (allNumbers) return { role: 'number', reason: 'all values are numbers' };
  if (profile.dates === filled) return { role: 'date', reason: 'all values are dates' };
  if (profile.numbers >= 0.95 * filled)
    return { role: 'number', reason: `${profile.numbers} of ${filled} values are numbers` };
  if (profile.choiceSeparator)
    return {
      role: 'choices',
      separator: profile.choiceSeparator,
      reason: `several choices in a cell, parted by “${profile.choiceSeparator}”`,
    };
  const share = profile.distinctShare;
  const asks = name.endsWith('?');
  const differs = allDiffer || share > 0.5;
  if (
    (medianWords >= 4 && share > 0.1) ||
    (medianWords >= 2 && differs) ||
    (asks && share > 0.3) ||
    profile.longest > 200
  )
    return {
      role: 'question',
      reason: `median ${medianWords} words, ${Math.round(100 * share)}% distinct`,
    };
  return { role: 'category', reason: `${distinct} different values` };
}

/** A single word that nobody shares among so many is an id, whatever it is called. */
const MANY = 20;

const looksLikeId = (name: string, profile: ColumnProfile): boolean => {
  const { idLike, filled, longest, numbers, dates } = profile;
  if (/\b(?:id|nr|no|number|key|code|respondent|case|participant|token|uuid)\b|id$/u.test(name))
    return true;
  const isWord = numbers < filled && dates < filled && longest <= 64 && !name.endsWith('?');
  return idLike === filled || (isWord && filled >= MANY);
};
