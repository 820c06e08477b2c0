import { foldForMatching } from '../text/index.js';
import type { ColumnRole, Table } from './table.js';
import { parseDate, parseNumber, parseYesNo } from './values.js';

/** What a column seems to be for, and why in a few words. */
export interface RoleGuess {
  role: ColumnRole;
  reason: string;
}

interface ColumnFacts {
  name: string;
  filled: string[];
  distinct: number;
  medianWords: number;
  rows: number;
}

/**
 * Guesses the role of each column from its name and its values. At most one column becomes the
 * respondent id and one the weight; the researcher may change all of it.
 */
export function guessRoles(table: Table): RoleGuess[] {
  const guesses = table.columns.map((name, c) => guessRole(factsOf(table, name, c)));
  for (const role of ['id', 'weight'] as const) {
    const first = guesses.findIndex((guess) => guess.role === role);
    guesses.forEach((guess, c) => {
      if (guess.role === role && c !== first)
        guesses[c] = {
          role: 'category',
          reason: `“${table.columns[first]}” already is the ${role}`,
        };
    });
  }
  return guesses;
}

function factsOf(table: Table, name: string, c: number): ColumnFacts {
  const filled = table.rows.map((row) => row[c]!.trim()).filter((cell) => cell !== '');
  const words = filled.map((cell) => cell.split(/\s+/u).length).sort((x, y) => x - y);
  return {
    name: foldForMatching(name),
    filled,
    distinct: new Set(filled).size,
    medianWords: words[Math.floor(words.length / 2)] ?? 0,
    rows: table.rows.length,
  };
}

function guessRole(facts: ColumnFacts): RoleGuess {
  const { name, filled, distinct, medianWords, rows } = facts;
  if (filled.length === 0) return { role: 'leave_out', reason: 'it is empty' };
  const allDiffer = filled.length === rows && distinct === rows;
  if (allDiffer && medianWords <= 1 && (rows > 1 || /\bid\b/u.test(name)) && looksLikeId(facts))
    return { role: 'id', reason: `all ${rows} values differ` };
  const numbers = filled.map(parseNumber);
  if (
    /^(?:weight|wt|wgt|weighting|gewicht|poids|peso)\b/u.test(name) &&
    numbers.every((value) => value !== null && value >= 0)
  )
    return { role: 'weight', reason: 'it is named so, and all values are numbers from 0 up' };
  if (distinct <= 2 && filled.every((cell) => parseYesNo(cell) !== null))
    return { role: 'yes_no', reason: 'all values say yes or no' };
  if (numbers.every((value) => value !== null))
    return { role: 'number', reason: 'all values are numbers' };
  if (filled.every((cell) => parseDate(cell) !== null))
    return { role: 'date', reason: 'all values are dates' };
  const share = distinct / filled.length;
  if (medianWords >= 4 || (medianWords >= 2 && share > 0.5) || (name.endsWith('?') && share > 0.3))
    return {
      role: 'question',
      reason: `median ${medianWords} words, ${Math.round(100 * share)}% distinct`,
    };
  return { role: 'category', reason: `${distinct} different values` };
}

const looksLikeId = ({ name, filled }: ColumnFacts): boolean =>
  /\b(?:id|nr|no|number|key|code|respondent|case|participant|token|uuid)\b/u.test(name) ||
  filled.every((cell) => /\d/u.test(cell) && parseDate(cell) === null && !/[.,]\d/u.test(cell));
