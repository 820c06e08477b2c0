import { normalQuantile, wilsonInterval, type Interval } from '../statistics/index.js';
import { bootstrapKappa } from './bootstrapKappa.js';
import { cohenKappa, within, type FourCells, type Kappa } from './kappa.js';
import { eachOnce, gwetAc1, krippendorffAlpha } from './manyCoders.js';
import { masiDistance } from './masi.js';

/** What one coder gave an answer; empty where nothing applies. */
export type CodesOf = ReadonlySet<string>;

/** How two coders agree on whether something applies. */
export interface CodeAgreement extends Kappa {
  cells: FourCells;
  /** Krippendorff's alpha, nominal; null where it is not defined. */
  alpha: number | null;
  /** Gwet's AC1, which stays readable where a code is rare. */
  ac1: number | null;
}

export interface Comparison {
  codes: (CodeAgreement & { codeId: string })[];
  /** Over all codes, those that neither used among them: each code of each answer is one decision. */
  overall: CodeAgreement;
  /** Answers that both gave exactly the same codes. */
  sameSets: { count: number; n: number; interval: Interval | null };
  /** Alpha of whole sets of codes, by MASI distance. */
  alphaOfSets: number | null;
}

/** A code that both coders used less often than this says little. Common practice, no source. */
export const FEWEST_USES = 5;

/**
 * How two coders agree, code by code and overall.
 *
 * @param answers what the first and the second coder gave each answer that both settled
 * @param codes that could be given; of one that neither used nothing is said by itself, but not giving it is a decision
 *   of both, and counts overall
 * @param level of the intervals, 0 to 1
 */
export function compareCoders(
  answers: readonly (readonly [CodesOf, CodesOf])[],
  codes: readonly string[],
  level = 0.95,
): Comparison {
  const all = codes.map((codeId) => ({ codeId, cells: cellsOf(answers, codeId) }));
  const found = all
    .filter(({ cells }) => cells.neither < answers.length)
    .map(({ codeId, cells }) => ({ codeId, ...agreementOnCode(cells, level) }));
  const offered = new Set(codes);
  const byAnswer = answers.map((answer) => cellsOfAnswer(answer, offered));
  const pooled = agreementOn(addUp(all.map(({ cells }) => cells)), level);
  const same = answers.filter(([one, other]) => masiDistance(one, other) === 0).length;
  return {
    codes: found,
    overall: { ...pooled, ...overAnswers(byAnswer, pooled.kappa, level) },
    sameSets: {
      count: same,
      n: answers.length,
      interval:
        answers.length === 0 ? null : wilsonInterval(same / answers.length, answers.length, level),
    },
    alphaOfSets: alphaOfSets(answers),
  };
}

/** Alpha of whole sets of codes by any number of coders, as many sets an answer as there are who settled it. */
export const alphaOfSets = (answers: readonly (readonly CodesOf[])[]): number | null =>
  krippendorffAlpha(eachOnce(answers), masiDistance, (codes) => [...codes].sort().join(' '));

/** Alpha of whether one code applies, by any number of coders. */
export const alphaOfCode = (
  answers: readonly (readonly CodesOf[])[],
  codeId: string,
): number | null =>
  krippendorffAlpha(
    eachOnce(answers.map((sets) => sets.map((codes) => codes.has(codeId)))),
    (one, other) => (one === other ? 0 : 1),
  );

/** On which of some codes both, one or neither of two coders decided for an answer. */
function cellsOfAnswer([one, other]: readonly [CodesOf, CodesOf], codes: CodesOf): FourCells {
  const given = (set: CodesOf) => [...set].filter((code) => codes.has(code));
  const [firsts, seconds] = [given(one), given(other)];
  const both = firsts.filter((code) => other.has(code)).length;
  const [first, second] = [firsts.length - both, seconds.length - both];
  return { both, first, second, neither: codes.size - both - first - second };
}

/** How often both, one or neither of two coders gave a code. */
function cellsOf(answers: readonly (readonly [CodesOf, CodesOf])[], codeId: string): FourCells {
  const cells = { both: 0, first: 0, second: 0, neither: 0 };
  for (const [one, other] of answers) {
    const [first, second] = [one.has(codeId), other.has(codeId)];
    cells[first ? (second ? 'both' : 'first') : second ? 'second' : 'neither'] += 1;
  }
  return cells;
}

const addUp = (all: readonly FourCells[]): FourCells =>
  all.reduce(
    (sum, cells) => ({
      both: sum.both + cells.both,
      first: sum.first + cells.first,
      second: sum.second + cells.second,
      neither: sum.neither + cells.neither,
    }),
    { both: 0, first: 0, second: 0, neither: 0 },
  );

const kappaOf = ({ both, first, second, neither }: FourCells, level?: number) =>
  cohenKappa(
    [
      [both, first],
      [second, neither],
    ],
    level,
  );

function agreementOn(cells: FourCells, level: number): CodeAgreement {
  const { both, first, second, neither } = cells;
  const judged = [
    { values: [1, 1], times: both },
    { values: [1, 0], times: first },
    { values: [0, 1], times: second },
    { values: [0, 0], times: neither },
  ].filter(({ times }) => times > 0);
  return {
    ...kappaOf(cells, level),
    cells,
    alpha: krippendorffAlpha(judged, (one, other) => (one === other ? 0 : 1)),
    ac1: gwetAc1(judged, 2),
  };
}

/** With fewer uses of a code, or fewer answers without it, by either coder, the error of large samples does not hold. */
const FEWEST_FOR_LARGE_SAMPLE = 25;

/** Of one code: the interval is bootstrapped where the code, or its absence, is rare. */
function agreementOnCode(cells: FourCells, level: number): CodeAgreement {
  const { both, first, second, neither } = cells;
  const fewest = Math.min(both + first, both + second, neither + first, neither + second);
  const agreement = agreementOn(cells, level);
  return fewest >= FEWEST_FOR_LARGE_SAMPLE || agreement.interval === null
    ? agreement
    : { ...agreement, interval: bootstrapKappa(cells, level) };
}

/**
 * The error of a kappa over all codes, by leaving out an answer at a time: codes of one answer go together, so that
 * counting each as a case of its own would make it look surer than it is.
 *
 * @see Efron & Tibshirani (1993) An introduction to the bootstrap, chapter 11 (the jackknife)
 */
function overAnswers(
  byAnswer: readonly FourCells[],
  kappa: number | null,
  level: number,
): Pick<Kappa, 'error' | 'interval'> {
  const all = addUp(byAnswer);
  const without = byAnswer.map(
    (one) =>
      kappaOf({
        both: all.both - one.both,
        first: all.first - one.first,
        second: all.second - one.second,
        neither: all.neither - one.neither,
      }).kappa,
  );
  const known = without.filter((one) => one !== null);
  if (kappa === null || known.length < 2 || known.length < without.length)
    return { error: null, interval: null };
  const mean = known.reduce((sum, one) => sum + one, 0) / known.length;
  const spread = known.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  const error = Math.sqrt(((known.length - 1) / known.length) * spread);
  const width = normalQuantile((1 + level) / 2) * error;
  return { error, interval: error < 1e-12 ? null : within(kappa, width) };
}

export type AgreementState = 'firm' | 'tentative' | 'low' | 'little_evidence';

/**
 * What an agreement allows, in four steps: conclusions may rest on an alpha from .800, tentative ones from .667.
 *
 * @see Krippendorff (2004) Content analysis, 2nd edition, chapter 11
 */
export function stateOfAgreement({
  alpha,
  cells: { both, first, second },
}: Pick<CodeAgreement, 'alpha' | 'cells'>): AgreementState {
  if (alpha === null || both + first + second < FEWEST_USES) return 'little_evidence';
  return alpha >= 0.8 ? 'firm' : alpha >= 0.667 ? 'tentative' : 'low';
}
