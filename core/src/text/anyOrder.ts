import { stemmer } from 'stemmer';
import { isAscii } from './ascii.js';
import { foldAccents } from './foldAccents.js';
import { splitLines, type Span } from './lines.js';
import { splitWords } from './words.js';

/** A word that was looked for, by number, where it stands. */
interface FoundWord extends Span {
  wanted: number;
}

/** Finds words in any forms wherever all of them stand in one line, in any order. */
export function wordsInLine(words: string): (text: string) => Iterable<Span> {
  const { count, find } = finderOf([words]);
  return (text) => {
    const found = find(text);
    if (count === 0 || distinct(found) < count) return [];
    return splitLines(text).flatMap((line) => {
      const its = found.filter(({ start, end }) => start >= line.start && end <= line.end);
      return distinct(its) === count ? its.map(asSpan) : [];
    });
  };
}

/** Finds words of some lists in any forms wherever a text has one of each list. */
export function wordsOfLists(lists: readonly string[]): (text: string) => Iterable<Span> {
  const { listsOf, find } = finderOf(lists);
  return (text) => {
    const found = find(text);
    const met = new Set(found.flatMap(({ wanted }) => [...listsOf[wanted]!]));
    return met.size === lists.length ? found.map(asSpan) : [];
  };
}

const asSpan = ({ start, end }: Span): Span => ({ start, end });
const distinct = (found: readonly FoundWord[]) => new Set(found.map(({ wanted }) => wanted)).size;

/** Finds words by their stems: each text is split once, however many words are looked for. */
function finderOf(lists: readonly string[]) {
  const numbers = new Map<string, number>();
  const listsOf: Set<number>[] = [];
  for (const [list, words] of lists.entries())
    for (const { form } of splitWords(foldAccents(words).text)) {
      const stem = stemmer(form);
      const wanted = numbers.get(stem) ?? numbers.size;
      numbers.set(stem, wanted);
      (listsOf[wanted] ??= new Set()).add(list);
    }
  const known = new Map<string, number>();
  const numberOf = (form: string): number => {
    let wanted = known.get(form);
    if (wanted === undefined) {
      wanted = numbers.get(stemmer(form)) ?? -1;
      known.set(form, wanted);
    }
    return wanted;
  };
  const find = (text: string): FoundWord[] => {
    const folded = isAscii(text) ? null : foldAccents(text);
    return splitWords(folded?.text ?? text).flatMap(({ form, start, end }) => {
      const wanted = numberOf(form);
      if (wanted < 0) return [];
      return [{ ...(folded ? folded.original({ start, end }) : { start, end }), wanted }];
    });
  };
  return { count: numbers.size, listsOf, find };
}
