import type { Contrast, Look } from '@yellow-thread/contract';
import {
  contrastTerms,
  countTopics,
  findTopics,
  linesOfSome,
  linkWords,
  lookAt,
  termsOf,
  type LeftOut,
  type LinkedWords,
  type TermLines,
  type TermTexts,
  type TopicCount,
  type TopicGap,
} from '@yellow-thread/core/look';

const MOST = { words: 60, phrases: 30 };
const MOST_CONTRASTED = 30;
const MOST_LINKED = 150;

/** What is looked at: all answers, or those that are marked. */
interface Restricted {
  leftOut: LeftOut;
  /** By answer, 1 for those that are looked at; null for all. */
  included: Uint8Array | null;
}

/** What looking at a question shows first, on a thread. */
export function lookWork({
  terms,
  leftOut,
  included,
}: Restricted & { terms: TermTexts }): Omit<Look, 'answered'> {
  return lookAt(included ? termsOf(terms, included) : terms, leftOut, MOST);
}

/** What some people say more often than all others, on a thread. */
export function contrastWork({
  terms,
  leftOut,
  included,
  inGroup,
}: Restricted & { terms: TermTexts; inGroup: Uint8Array }): Contrast {
  if (!included) return contrastTerms(terms, inGroup, leftOut, MOST_CONTRASTED);
  const its = inGroup.filter((_, a) => included[a]);
  return contrastTerms(termsOf(terms, included), its, leftOut, MOST_CONTRASTED);
}

/** A network of words with its topics; answers go by their indices among those that are looked at. */
export interface NetworkFigures extends LinkedWords {
  lines: number;
  modularity: number;
  topics: (TopicCount & { words: number[] })[];
  gaps: TopicGap[];
}

/** Which words keep company, and what they are about, on a thread. */
export function networkWork({
  lines,
  leftOut,
  included,
  hidden,
  columnOf,
  columns,
}: Restricted & {
  lines: TermLines;
  hidden: string[];
  /** By answer, all of them, the column that it is counted in; −1 for none. */
  columnOf: Int16Array | null;
  columns: number;
}): NetworkFigures {
  const its = included ? linesOfSome(lines, included) : lines;
  const linked = linkWords(its, leftOut, hidden, MOST_LINKED);
  const { topics, modularity } = findTopics(linked);
  const numbers = topics.map((words) => words.map((word) => linked.words[word]!.id));
  const { counts, gaps } = countTopics(its, numbers, {
    columnOf: columnOf && included ? columnOf.filter((_, a) => included[a]) : columnOf,
    columns,
  });
  return {
    ...linked,
    lines: its.answerOf.length,
    modularity,
    topics: topics.map((words, topic) => ({ ...counts[topic]!, words })),
    gaps,
  };
}
