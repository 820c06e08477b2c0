import { foldForMatching } from '../text/index.js';
import { looksPersonal } from './personalData.js';
import { LONGEST_VALUE, type ColumnProfile } from './profile.js';
import type { ColumnRole, ColumnSetting } from './settings.js';
import type { Writing } from './values.js';
import { guessRolesTexts } from '../wording/sheet.js';

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
    return { name: profile.name, of: '', separator: '', writing: '', ...guess };
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
  if (!guesses.some(({ role }) => role === 'id')) takeNearlyAnId(profiles, guesses);
  tieOthers(profiles, guesses);
  return guesses;
}

/** Least share of different values of an id: a few repeated rows do not matter. */
const LEAST_DIFFERENT = 0.95;

function takeNearlyAnId(profiles: readonly ColumnProfile[], guesses: RoleGuess[]): void {
  const c = profiles.findIndex((profile, k) => {
    const { filled, rows, distinctShare, medianWords } = profile;
    const isFull = filled >= MANY && filled >= LEAST_DIFFERENT * rows;
    if (!isFull || distinctShare < LEAST_DIFFERENT || medianWords > 1) return false;
    const name = foldForMatching(profile.name);
    const isNamed = /\b(?:id|respondent|case|participant|token|uuid)\b|id$/u.test(name);
    const isOther = profile.numbers > 0 || profile.anyDates > 0;
    return guesses[k]!.role !== 'leave_out' && (isNamed || (!isOther && profile.idLike === filled));
  });
  if (c < 0) return;
  const { distinctShare, name } = profiles[c]!;
  guesses[c] = {
    role: 'id',
    name,
    of: '',
    separator: '',
    writing: '',
    reason: guessRolesTexts.valuesDiffer(Math.floor(1000 * distinctShare)),
  };
}

const otherHead =
  /\b(?:other|sonstige[ns]?|andere[s]?|autre|otro)\b.*\b(?:specify|describe|which|text|what|name|angeben|welche)\b|\(?please specify\)?|[-_ :]other[-_ ]?text$/iu;

const otherValue = /\b(?:other|sonstige[rs]?|andere[rs]?|autres?|otr[oa]s?|overig)\b/iu;

/** "Other, please specify" belongs to the closed question next to it that has "other" among its values. */
function tieOthers(profiles: readonly ColumnProfile[], guesses: RoleGuess[]): void {
  const hasOther = ({ values }: ColumnProfile) =>
    [...values.keys()].some((value) => otherValue.test(value));
  const isClosed = guesses.map(({ role }) => role === 'category' || role === 'choices');
  for (const [c, guess] of guesses.entries()) {
    const { name, yesNo } = profiles[c]!;
    const holdsText = ['question', 'category', 'ticked'].includes(guess.role) && yesNo === 0;
    if (!otherHead.test(name) || !holdsText) continue;
    // where none has: the one before
    const before = guesses.findLastIndex((_, k) => k < c && isClosed[k]);
    const closed = [...guesses.keys()]
      .filter((k) => k !== c && isClosed[k] && hasOther(profiles[k]!))
      .reduce((best, k) => (best < 0 || Math.abs(k - c) < Math.abs(best - c) ? k : best), -1);
    const of = guesses[closed >= 0 ? closed : before];
    if (!of) continue;
    guess.role = 'question';
    guess.of = of.name;
    guess.name = `${of.name}: ${name}`;
    guess.reason = guessRolesTexts.whatOtherAskedOnly(of.name);
  }
}

/** @param not a role that another column has already */
function guessRole(profile: ColumnProfile, not?: ColumnRole): Guess {
  const { filled, distinct, medianWords, rows, allDiffer } = profile;
  const name = foldForMatching(profile.name);
  if (filled === 0) return { role: 'leave_out', reason: guessRolesTexts.empty };
  const personal = looksPersonal(profile.name, [...profile.values.keys()].slice(0, 200));
  if (personal) return { role: 'leave_out', reason: guessRolesTexts.looksLike(personal) };
  if (
    not !== 'id' &&
    filled === rows &&
    allDiffer &&
    medianWords <= 1 &&
    (rows > 1 || /\bid\b/u.test(name))
  )
    if (looksLikeId(name, profile))
      return { role: 'id', reason: guessRolesTexts.allValuesDiffer(rows) };
  const numbers = asNumbers(profile);
  if (
    not !== 'weight' &&
    /^(?:weight|wt|wgt|weighting|gewicht|poids|peso)\b/u.test(name) &&
    numbers?.count === filled &&
    profile.nonNegative
  )
    return {
      role: 'weight',
      writing: numbers.writing,
      reason: guessRolesTexts.namedAllValuesNumbers,
    };
  if (distinct <= 2 && profile.yesNo === filled)
    return filled < rows && distinct === 1
      ? { role: 'ticked', reason: guessRolesTexts.oneValueBlankTick }
      : { role: 'yes_no', reason: guessRolesTexts.allValuesSayYes };
  if (distinct === 1 && filled < rows && profile.longest <= 60)
    return { role: 'ticked', reason: guessRolesTexts.oneValueBlankTick };
  if (numbers)
    return { role: 'number', writing: numbers.writing, reason: numbersReason(profile, numbers) };
  // a few that are misspelt leave it a column of dates, and are reported
  if (profile.anyDates >= LEAST_DATES * filled) {
    // those that can be read in one way only say how all of them are
    if (profile.monthFirst > profile.dates)
      return {
        role: 'date',
        writing: 'month_first',
        reason: guessRolesTexts.allValuesDatesMonth,
      };
    return { role: 'date', reason: guessRolesTexts.allValuesDates(profile.twoWays) };
  }
  if (profile.choiceSeparator)
    return {
      role: 'choices',
      separator: profile.choiceSeparator,
      reason: guessRolesTexts.severalChoicesCellSeparated(profile.choiceSeparator),
    };
  const share = profile.distinctShare;
  const asks = name.endsWith('?');
  const differs = allDiffer || share > 0.5;
  // times of day, telephone numbers and the like say nothing in words
  const isSaid = profile.lettered > 0 || profile.longest > LONGEST_VALUE;
  if (
    isSaid &&
    ((medianWords >= 4 && share > 0.1) ||
      (medianWords >= 2 && differs) ||
      (asks && share > 0.3) ||
      profile.longest > 200)
  )
    return {
      role: 'question',
      reason: guessRolesTexts.medianWordsDistinct(medianWords, Math.round(100 * share)),
    };
  return { role: 'category', reason: guessRolesTexts.differentValues(distinct) };
}

/** Least share of dates among the values of a column of dates. */
const LEAST_DATES = 0.95;

/** Least share of numbers among the values of a column of numbers. */
const LEAST_NUMBERS = 0.95;

/** How the numbers of a column are written, and how many of its values are such; null where it has others. */
function asNumbers(profile: ColumnProfile): { writing: Writing; count: number } | null {
  const { numbers, commaGroups, pointGroups, grouped } = profile;
  const least = LEAST_NUMBERS * profile.filled;
  // 45,000 may be forty-five: a column in which every comma has three digits behind it says otherwise
  if (grouped > 0 && commaGroups >= least && commaGroups >= numbers)
    return { writing: 'comma_groups', count: commaGroups };
  if (numbers >= least) return { writing: '', count: numbers };
  return pointGroups >= least ? { writing: 'point_groups', count: pointGroups } : null;
}

const between: Record<Writing, string> = {
  '': '',
  comma_groups: guessRolesTexts.commaBetweenThousands,
  point_groups: guessRolesTexts.pointBetweenThousands,
  month_first: '',
};

const numbersReason = (
  { filled }: ColumnProfile,
  { writing, count }: { writing: Writing; count: number },
): string => guessRolesTexts.valuesNumbers(count, filled, between[writing]);

/** From this many rows, single words that all differ are an id, whatever the column is called. */
const MANY = 20;

const looksLikeId = (name: string, profile: ColumnProfile): boolean => {
  const { idLike, filled, longest, numbers, anyDates } = profile;
  if (/\b(?:id|nr|no|number|key|code|respondent|case|participant|token|uuid)\b|id$/u.test(name))
    return true;
  const isWord =
    numbers < filled && anyDates < LEAST_DATES * filled && longest <= 64 && !name.endsWith('?');
  return idLike === filled || (isWord && filled >= MANY);
};
