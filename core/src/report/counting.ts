import {
  addTo,
  emptyBitset,
  intersect,
  isEmpty,
  subtract,
  unite,
  type Bitset,
} from '../groups/index.js';
import { rowOfMentions, type BaseKind, type CrosstabRow } from './crosstab.js';

/**
 * What a table counts; one rule for all of its rows.
 *
 * - `sample`: answers that were drawn at random and settled by hand, without suggestions in view
 * - `estimated`: everybody who answered, estimated from that sample and the models
 * - `decided`: everybody who answered, with what is decided so far: "at least" where something is not
 * - `settled`: every answer that is settled by hand, however it was chosen
 */
export type CountingRule = 'sample' | 'estimated' | 'decided' | 'settled';
export const COUNTING_RULES: readonly CountingRule[] = [
  'decided',
  'estimated',
  'sample',
  'settled',
];

/** What is known of one code among the answers to a question; sets are of respondents. */
export interface CodeState {
  /** The respondent of each mention, in one list or several. */
  mentions: readonly Int32Array[];
  /** Answers of which a suggestion of the code was decided, either way. */
  judged: Bitset | null;
  /** Answers for which the code was closed: what is not mentioned there is known not to be. */
  closed: Bitset | null;
}

/** How far the answers to a question are coded. */
export interface QuestionState {
  /** How many respondents there are. */
  size: number;
  answered: Bitset;
  /** Settled by hand, whether or not suggestions were in view. */
  settled: Bitset;
  /** Drawn at random and settled by hand without suggestions in view. */
  sampled: Bitset;
  /** By code; a code of which nothing is known is missing. */
  codes: ReadonlyMap<string, CodeState>;
}

const nothingKnown: CodeState = { mentions: [], judged: null, closed: null };

/** The answers that are counted by a rule; under `estimated`, those that the estimate is measured on. */
export function countedAnswers(state: QuestionState, rule: CountingRule): Bitset {
  switch (rule) {
    case 'settled':
      return intersect(state.settled, state.answered);
    case 'sample':
    case 'estimated':
      return intersect(state.sampled, state.answered);
    case 'decided':
      return state.answered;
  }
}

/**
 * The row of a code as a rule counts it. Under `decided`, answers count in which the code is mentioned, and those are
 * undecided where nobody settled the answer, decided a suggestion of the code, or closed it.
 *
 * @param counted the rule's answers
 * @see countedAnswers
 */
export function countedRow(
  state: QuestionState,
  key: string,
  rule: CountingRule,
  counted = countedAnswers(state, rule),
): CrosstabRow {
  const code = state.codes.get(key) ?? nothingKnown;
  const row = rowOfMentions(key, code.mentions, counted, state.size);
  return rule === 'decided' ? { ...row, undecided: undecidedOf(state, code, row.mentioned) } : row;
}

/** Answers of which it is not known whether they mention a code. */
function undecidedOf(
  { answered, settled }: QuestionState,
  { judged, closed }: CodeState,
  mentioned: Bitset,
): Bitset | null {
  let undecided = subtract(subtract(answered, settled), mentioned);
  if (judged) undecided = subtract(undecided, judged);
  if (closed) undecided = subtract(undecided, closed);
  return isEmpty(undecided) ? null : undecided;
}

/**
 * Answers whose codes are all decided: settled by hand, or every code of the book decided by itself, some of them in
 * review. Who codes an answer by hand has not decided it by having given it every code that there is.
 *
 * @param book the codes that can be given to the question; without any, only what is settled by hand is decided
 */
export function decidedAnswers(state: QuestionState, book: readonly string[]): Bitset {
  const settled = countedAnswers(state, 'settled');
  if (book.length === 0) return settled;
  const reviewed = book.flatMap((id) => {
    const { judged, closed } = state.codes.get(id) ?? nothingKnown;
    return [...(judged ? [judged] : []), ...(closed ? [closed] : [])];
  });
  if (reviewed.length === 0) return settled;
  let open = intersect(subtract(state.answered, settled), reviewed.reduce(unite));
  for (const id of book) {
    if (isEmpty(open)) break;
    const code = state.codes.get(id) ?? nothingKnown;
    const mentioned = emptyBitset(state.size);
    for (const list of code.mentions) for (const i of list) addTo(mentioned, i);
    const undecided = undecidedOf(state, code, mentioned);
    if (undecided) open = subtract(open, undecided);
  }
  return unite(settled, open);
}

/** A table's rule where none is asked for: the strongest that holds. */
export function defaultRule({
  isFinished,
  hasSample,
}: {
  /** Whether every answer is settled. */
  isFinished: boolean;
  /** Whether a random sample is settled to the last. */
  hasSample: boolean;
}): CountingRule {
  if (isFinished) return 'decided';
  return hasSample ? 'estimated' : 'settled';
}

const basesByRule: Record<CountingRule, readonly [BaseKind, ...BaseKind[]]> = {
  decided: ['answered', 'asked', 'mentions'],
  estimated: ['answered'],
  sample: ['settled', 'mentions'],
  settled: ['settled', 'mentions'],
};

/**
 * What percentages can be out of by a rule, the usual one first. While something is undecided, mentions are missing
 * above and below the line alike, so that shares of them say nothing.
 */
export function basesOf(rule: CountingRule, isFinished: boolean): [BaseKind, ...BaseKind[]] {
  const [usual, ...others] = basesByRule[rule];
  return [
    usual,
    ...others.filter((base) => rule !== 'decided' || isFinished || base !== 'mentions'),
  ];
}
