import type { Quality } from '@yellow-thread/contract';
import { linesOf, type Cut } from '@yellow-thread/core/coding';
import { trainQuestion, type TrainingInput, type WordTable } from '@yellow-thread/core/learning';
import type { SentenceVectors } from '@yellow-thread/core/sentences';
import { isFunctionWord, splitWords, type AsideMarks } from '@yellow-thread/core/text';
import { scoreTone, TONES, type Tone } from '@yellow-thread/core/tone';
import { toneLexicon } from './lexicon.js';

/** The lines of some answers with the tone that a lexicon gives them. */
export interface ToneLines {
  /** The lines of answer a stand at places first[a] … first[a + 1] − 1. */
  first: Int32Array;
  /** By line, in UTF-16 units of its answer. */
  starts: Int32Array;
  ends: Int32Array;
  /** By line: a place in TONES, and 0 to 1. */
  tones: Uint8Array;
  strengths: Float32Array;
}

const NONE = TONES.indexOf('none');

/** Cuts answers into lines and scores their tone, on a thread. What is not English has no tone here. */
export async function toneLinesWork(
  {
    texts,
    asides,
    cuts,
  }: {
    texts: readonly string[];
    asides: AsideMarks;
    /** Where lines were cut by hand, by the place of the answer. */
    cuts: ReadonlyMap<number, readonly Cut[]>;
  },
  isEnglish: (text: string, others: readonly string[]) => Promise<boolean>,
): Promise<ToneLines> {
  const rated = await toneLexicon();
  const first = new Int32Array(texts.length + 1);
  const starts: number[] = [];
  const ends: number[] = [];
  const tones: number[] = [];
  const strengths: number[] = [];
  for (const [a, text] of texts.entries()) {
    const lines = linesOf(text, asides, cuts.get(a)).filter((line) => !line.isAside);
    const scored = lines.map(({ start, end }) => scoreTone(text.slice(start, end), rated));
    const isRead =
      scored.some(({ tone }) => tone !== 'none') &&
      (isPlainlyEnglish(text) || (await isEnglish(text, NO_OTHERS)));
    for (const [l, { start, end }] of lines.entries()) {
      const { tone, strength } = scored[l]!;
      starts.push(start);
      ends.push(end);
      tones.push(isRead ? TONES.indexOf(tone) : NONE);
      strengths.push(isRead ? strength : 0);
    }
    first[a + 1] = starts.length;
  }
  return {
    first,
    starts: Int32Array.from(starts),
    ends: Int32Array.from(ends),
    tones: Uint8Array.from(tones),
    strengths: Float32Array.from(strengths),
  };
}
const NO_OTHERS: readonly string[] = [];

/** So many different function words, and this share of all words, stand in no other language. */
const FUNCTION_WORDS = 3;
const FUNCTION_SHARE = 0.3;
/** Whether a text is English beyond doubt: telling languages apart takes longer than all else. */
function isPlainlyEnglish(text: string): boolean {
  const words = splitWords(text);
  const found = words.filter(({ form }) => isFunctionWord(form));
  return (
    found.length >= FUNCTION_SHARE * words.length &&
    new Set(found.map(({ form }) => form)).size >= FUNCTION_WORDS
  );
}

/** A line as the models of tone learn from it. */
export interface ToneExample {
  text: string;
  /** What a person found; null for one that nobody checked. */
  isPositive: boolean | null;
  isNegative: boolean;
  /** Of a random sample that was read to its end. */
  random: boolean;
  /** What the lexicon says. */
  lexicon: Tone;
}

/** What was measured of the models of one tone, and what they say by line. */
export interface ToneOutcome {
  measured: { examples: number; quality: Quality } | null;
  likely: Float32Array | null;
  /** The same by models that did not see the line; null where too few of a random sample have the tone. */
  unseen: Float32Array | null;
}

/** Stand behind a line for what the lexicon says of it: a word like any other to the models. */
const SAID: Readonly<Record<Tone, string>> = {
  positive: ' lexiconpositive',
  negative: ' lexiconnegative',
  mixed: ' lexiconpositive lexiconnegative',
  none: '',
};

/** Trains the models of tone, as those of two codes, on a thread. */
export function trainToneWork(
  {
    lines,
    seed,
    vectors,
  }: { lines: readonly ToneExample[]; seed: number; vectors: SentenceVectors | null },
  table: WordTable | null,
  report: (progress: { done: number; of: number }) => void,
): { positive: ToneOutcome; negative: ToneOutcome } {
  const plain = new Map(lines.map(({ text, lexicon: said }) => [text + SAID[said], text]));
  const input: TrainingInput = {
    seed,
    leastProbability: 0,
    codes: (['positive', 'negative'] as const).map((id) => ({
      ...{ id, name: id, definition: `lexicon${id}`, include: '' },
    })),
    answers: lines.map(({ text, isPositive, isNegative, random, lexicon: said }) => ({
      text: text + SAID[said],
      settled: isPositive !== null,
      random,
      codes: new Set([...(isPositive ? ['positive'] : []), ...(isNegative ? ['negative'] : [])]),
    })),
  };
  const trained = trainQuestion(
    input,
    {
      table,
      sentences: vectors && {
        size: vectors.size,
        of: (text) => vectors.of(plain.get(text) ?? text),
      },
    },
    report,
  );
  const outcomeOf = (id: string): ToneOutcome => {
    const code = trained.codes.find(({ codeId }) => codeId === id);
    if (!code || code.state === 'too_few') return { measured: null, likely: null, unseen: null };
    const likely = new Float32Array(lines.length);
    const { answers, probabilities } = code.suggestions;
    for (const [s, answer] of answers.entries()) likely[answer] = probabilities[s]!;
    return {
      measured: { examples: code.examples, quality: code.quality },
      likely,
      unseen: trained.crossFitted.get(id) ?? null,
    };
  };
  return { positive: outcomeOf('positive'), negative: outcomeOf('negative') };
}
