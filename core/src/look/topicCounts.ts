import { adjust, chiSquareTail, logLikelihood } from '../statistics/index.js';
import { answerStarts, type TermLines } from './readTerms.js';

/** How a topic stands among the answers. */
export interface TopicCount {
  /** How many answers use any of its words, in all and by column. */
  answers: number;
  byColumn: number[];
  /** Indices of the answers that are most about it: most of its words among the fewest others. */
  typical: number[];
}

/** Two topics that many people speak of, and fewer together than by chance. */
export interface TopicGap {
  one: number;
  other: number;
  /** How many answers speak of both. */
  both: number;
  /** How many would if neither had to do with the other. */
  expected: number;
  /** Corrected for all pairs that are compared (Benjamini & Hochberg). */
  p: number;
  /** Indices of some answers that join them. */
  joined: number[];
}

/** A topic of fewer people than this share is not frequent. */
const FREQUENT = 0.03;
const FALSE_DISCOVERIES = 0.05;
const MOST_GAPS = 5;
const SHOWN = 3;

/**
 * How many answers speak of each topic, that is, use any of its words in any form, and which topics meet in fewer answers
 * than by chance.
 *
 * @param topics the words of each, by number among the terms
 * @param columnOf by answer, the column that it belongs to, −1 for none; with how many columns there are
 */
export function countTopics(
  lines: TermLines,
  topics: readonly (readonly number[])[],
  { columnOf, columns }: { columnOf: Int16Array | null; columns: number },
): { counts: TopicCount[]; gaps: TopicGap[] } {
  const { terms, answers } = lines;
  const start = answerStarts(lines);
  const topicOf = new Int32Array(terms.stems.length).fill(-1);
  for (const [topic, words] of topics.entries()) for (const word of words) topicOf[word] = topic;
  const holds = topics.map(() => new Uint8Array(answers));
  const scores = topics.map(() => new Float64Array(answers));
  for (let a = 0; a < answers; a++) {
    const words = new Set(terms.words.subarray(start[a], start[a + 1]));
    for (const word of words) {
      const topic = topicOf[word]!;
      if (topic < 0) continue;
      holds[topic]![a] = 1;
      scores[topic]![a]! += 1 / Math.sqrt(words.size);
    }
  }
  const counts = holds.map((held, topic): TopicCount => {
    const byColumn = Array.from({ length: columns }, () => 0);
    let all = 0;
    for (let a = 0; a < answers; a++) {
      if (!held[a]) continue;
      all += 1;
      const column = columnOf?.[a] ?? -1;
      if (column >= 0) byColumn[column]! += 1;
    }
    return { answers: all, byColumn, typical: highest(scores[topic]!, SHOWN) };
  });
  return { counts, gaps: findGaps(holds, scores, counts, answers) };
}

function findGaps(
  holds: readonly Uint8Array[],
  scores: readonly Float64Array[],
  counts: readonly TopicCount[],
  all: number,
): TopicGap[] {
  const frequent = counts.flatMap(({ answers }, topic) =>
    answers >= FREQUENT * all ? [topic] : [],
  );
  const pairs = frequent.flatMap((one, i) =>
    frequent.slice(i + 1).map((other) => {
      const both = holds[one]!.reduce((sum, held, a) => sum + (held & holds[other]![a]!), 0);
      const [ones, others] = [counts[one]!.answers, counts[other]!.answers];
      const expected = (ones * others) / all;
      const likelihood = both < expected ? logLikelihood(both, ones, others, all) : 0;
      return { one, other, both, expected, likelihood };
    }),
  );
  const p = adjust(
    pairs.map(({ likelihood }) => chiSquareTail(likelihood, 1)),
    'benjamini_hochberg',
  );
  return pairs
    .map((pair, i) => ({ ...pair, p: p[i]! }))
    .filter((pair) => pair.p <= FALSE_DISCOVERIES)
    .sort((x, y) => y.likelihood - x.likelihood)
    .slice(0, MOST_GAPS)
    .map(({ one, other, both, expected, p: corrected }) => ({
      ...{ one, other, both, expected, p: corrected },
      joined: highest(
        // what says much of both
        scores[one]!.map((score, a) => score * scores[other]![a]!),
        SHOWN,
      ),
    }));
}

/** Indices of the highest scores above zero, highest first. */
function highest(scores: Float64Array, most: number): number[] {
  const best: number[] = [];
  for (let a = 0; a < scores.length; a++) {
    if (scores[a]! <= 0) continue;
    const at = best.findIndex((one) => scores[one]! < scores[a]!);
    if (at >= 0) best.splice(at, 0, a);
    else if (best.length < most) best.push(a);
    if (best.length > most) best.pop();
  }
  return best;
}
