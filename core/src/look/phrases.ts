import { logLikelihood } from '../statistics/index.js';
import { isFunctionWord } from '../text/index.js';
import type { TermTexts } from './readTerms.js';

/** Words that stand side by side more often than by chance. */
export interface Phrase {
  /** As it is written first, its words separated by spaces. */
  phrase: string;
  /** How many answers use it at least once, in any forms of its words. */
  answers: number;
}

const LONGEST = 4;
/** A phrase of fewer people is a way of speaking. */
const FEWEST_ANSWERS = 3;
/** G² that chance exceeds once in a thousand times. */
const LEAST_LIKELIHOOD = 10.83;
/** A phrase of which so much is said within a longer one is that longer one. */
const WITHIN_LONGER = 0.8;

/** Runs of words of one length: how often each occurs, in how many answers, and where. */
interface Runs {
  length: number;
  uses: number[];
  answers: number[];
  /** Where it first stands: a place among the words. */
  place: number[];
  /** By place among the words, the run that begins there; −1 for none that is frequent enough. */
  at: Int32Array;
}

/** Phrases, and where they stand. */
export interface FoundPhrases {
  phrases: Phrase[];
  /** By length from two words on: by place among the words, which phrase begins there; −1 for none. */
  places: () => Int32Array[];
}

/**
 * Phrases of two to four words that stand together more than by chance, most used first: wherever such a run is cut in
 * two, the parts meet more often than they would if words were shuffled (G²). One that is said within a longer one nearly
 * always gives way to it. Those that begin or end with a function word are left out, and those with an ignored word.
 *
 * @param ignored words, by number, that are no part of a phrase
 * @param question words of the question, by number: a phrase of these alone says nothing
 * @see Dunning (1993) Accurate methods for the statistics of surprise and coincidence
 */
export function findPhrases(
  terms: TermTexts,
  ignored: ReadonlySet<number>,
  question: ReadonlySet<number>,
): FoundPhrases {
  const lengths = [singleWords(terms)];
  for (let length = 2; length <= LONGEST; length++) lengths.push(longer(terms, lengths.at(-1)!));
  const isEmpty = saysNothing(terms);
  const found: { words: number[]; answers: number; place: number; runs: Runs; run: number }[] = [];
  for (const runs of lengths.slice(1).reverse())
    for (const run of runs.uses.keys()) {
      const place = runs.place[run]!;
      const words = [...terms.words.subarray(place, place + runs.length)];
      if (runs.answers[run]! < FEWEST_ANSWERS || isEmpty[words[0]!] || isEmpty[words.at(-1)!])
        continue;
      if (words.some((word) => ignored.has(word)) || words.every((word) => question.has(word)))
        continue;
      if (!isBound(lengths, terms.words.length, place, run, runs)) continue;
      found.push({ words, answers: runs.answers[run]!, place, runs, run });
    }
  const kept = withoutParts(found).sort((x, y) => y.answers - x.answers || x.place - y.place);
  const phrases = kept.map(({ words, answers, place }) => ({
    phrase: words.map((_, w) => terms.spellings[terms.forms[place + w]!]!).join(' '),
    answers,
  }));
  const places = () =>
    lengths.slice(1).map((runs) => {
      const phraseOf = new Map(
        kept.flatMap((one, phrase) => (one.runs === runs ? [[one.run, phrase]] : [])),
      );
      return runs.at.map((run) => phraseOf.get(run) ?? -1);
    });
  return { phrases, places };
}

/** By number of a word, whether it is a function word in some form of it. */
function saysNothing({ stems, wordOf, spellings }: TermTexts): boolean[] {
  const isEmpty = stems.map((stem) => isFunctionWord(stem));
  for (const [form, word] of wordOf.entries())
    if (isFunctionWord(spellings[form]!)) isEmpty[word] = true;
  return isEmpty;
}

function singleWords({ start, words, stems }: TermTexts): Runs {
  const none = () => Array.from({ length: stems.length }, () => 0);
  const runs: Runs = { length: 1, uses: none(), answers: none(), place: none(), at: words };
  const lastIn = new Int32Array(stems.length).fill(-1);
  for (let t = 0; t < start.length - 1; t++)
    for (let w = start[t]!; w < start[t + 1]!; w++) count(runs, words[w]!, { w, t, lastIn });
  return runs;
}

/** Runs that are one word longer than others; those of fewer answers than it takes lead to none. */
function longer({ start, words, stems }: TermTexts, before: Runs): Runs {
  const { length } = before;
  const ids = new Map<number, number>();
  const runs: Runs = {
    length: length + 1,
    uses: [],
    answers: [],
    place: [],
    at: new Int32Array(words.length).fill(-1),
  };
  const lastIn: number[] = [];
  const isFrequent = (run: number) => run >= 0 && before.answers[run]! >= FEWEST_ANSWERS;
  for (let t = 0; t < start.length - 1; t++)
    for (let w = start[t]!; w + length < start[t + 1]!; w++) {
      const first = before.at[w]!;
      if (!isFrequent(first) || !isFrequent(before.at[w + 1]!)) continue;
      const last = words[w + length]!;
      const key = first * stems.length + last;
      let run = ids.get(key);
      if (run === undefined) {
        run = ids.size;
        ids.set(key, run);
        runs.uses.push(0);
        runs.answers.push(0);
        runs.place.push(w);
        lastIn.push(-1);
      }
      runs.at[w] = run;
      count(runs, run, { w, t, lastIn });
    }
  return runs;
}

function count(
  runs: Runs,
  run: number,
  { w, t, lastIn }: { w: number; t: number; lastIn: { [run: number]: number } },
): void {
  if (runs.uses[run] === 0) runs.place[run] = w;
  runs.uses[run]! += 1;
  if (lastIn[run] === t) return;
  lastIn[run] = t;
  runs.answers[run]! += 1;
}

/** Whether the parts of a run meet more than by chance wherever it is cut. */
function isBound(
  lengths: readonly Runs[],
  all: number,
  place: number,
  run: number,
  { length, uses }: Runs,
): boolean {
  for (let cut = 1; cut < length; cut++) {
    const one = lengths[cut - 1]!;
    const other = lengths[length - cut - 1]!;
    const ones = one.uses[one.at[place]!]!;
    const others = other.uses[other.at[place + cut]!]!;
    const both = uses[run]!;
    if (both * all <= ones * others) return false;
    if (logLikelihood(both, ones, others, all) < LEAST_LIKELIHOOD) return false;
  }
  return true;
}

/** Without phrases that are said within a longer one nearly always; the longest come first. */
function withoutParts<Found extends { words: number[]; answers: number }>(
  found: readonly Found[],
): Found[] {
  const longest = new Map<string, number>();
  return found.filter(({ words, answers }) => {
    const key = words.join(' ');
    if ((longest.get(key) ?? 0) >= WITHIN_LONGER * answers) return false;
    for (let length = 2; length < words.length; length++)
      for (let from = 0; from + length <= words.length; from++) {
        const part = words.slice(from, from + length).join(' ');
        longest.set(part, Math.max(longest.get(part) ?? 0, answers));
      }
    return true;
  });
}
