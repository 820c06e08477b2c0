import type { Misspelling } from '@yellow-thread/core/assistant';
import { editDistance, splitWords } from '@yellow-thread/core/text';
import american from 'dictionary-en';
import british from 'dictionary-en-gb';
import nspell from 'nspell';

const dictionaries = [american, british].map(({ aff, dic }) =>
  nspell(Buffer.from(aff), Buffer.from(dic)),
);
const MOST_SUGGESTED = 3;
/** Looking for what may be meant takes milliseconds a word. */
const MOST_MISSPELT = 12;
/** What this many other texts say is a word of theirs, whether dictionaries know it or not. */
const USED_BY = 2;
const SHORTEST = 3;

/**
 * Finds words that are spelt wrongly in an English text: in no dictionary, no name, and not in use elsewhere.
 *
 * @param others texts of the same study
 */
export function misspeltWords(text: string, others: readonly string[]): Misspelling[] {
  const used = countTexts(others);
  const found: Misspelling[] = [];
  for (const { start, end, form } of splitWords(text)) {
    const written = text.slice(start, end);
    if (form.length < SHORTEST || !/^[a-z']+$/u.test(form) || isName(written)) continue;
    if ((used.get(form) ?? 0) >= USED_BY) continue;
    if (dictionaries.some((one) => one.correct(form))) continue;
    const suggestions = [...new Set(dictionaries.flatMap((one) => one.suggest(form)))]
      .map((word) => ({ word, rank: rankOf(word, form, used) }))
      .sort((x, y) => x.rank - y.rank)
      .slice(0, MOST_SUGGESTED)
      .map(({ word }) => word);
    found.push({ start, end, suggestions });
    if (found.length === MOST_MISSPELT) break;
  }
  return found;
}

/** What is likely to be meant stands first: letters that changed places, few others, a word that the study uses. */
function rankOf(word: string, form: string, used: ReadonlyMap<string, number>): number {
  const letters = (text: string) => [...text.toLowerCase()].sort().join('');
  const distance =
    letters(word) === letters(form) ? 0.5 : editDistance(word.toLowerCase(), form, MOST_EDITS);
  return distance - (used.has(word.toLowerCase()) ? 0.25 : 0);
}
const MOST_EDITS = 4;

const isName = (written: string): boolean => /\p{Lu}/u.test(written);

function countTexts(texts: readonly string[]): Map<string, number> {
  const used = new Map<string, number>();
  for (const text of texts)
    for (const form of new Set(splitWords(text).map((word) => word.form)))
      used.set(form, (used.get(form) ?? 0) + 1);
  return used;
}
