/**
 * How many codes each answer brings that none before it had.
 *
 * @param answers the codes of each answer, in the order in which they were coded
 */
export function newCodesOf(answers: readonly (readonly string[])[]): number[] {
  const seen = new Set<string>();
  return answers.map((codes) => {
    const before = seen.size;
    for (const code of codes) seen.add(code);
    return seen.size - before;
  });
}

/** Short answers that make one unit, where the method takes an interview. */
export const SATURATION_UNIT = 10;
/** How many units the base and a run have. */
export const SATURATION_BASE = 4;
export const SATURATION_RUN = 2;
/** At most so much of what the base brought, and new codes have become rare: time to organise. */
export const RARE_NEW_CODES = 0.05;

/** A run of units set against the base: how much of what the base brought it still brings. */
export interface SaturationRun {
  /** Numbers of the first and last unit of the run, from 1. */
  from: number;
  to: number;
  new: number;
  ratio: number;
}

/**
 * The new information ratio: codes that a run of units brings new, as a share of the codes that the first few
 * units brought. The run slides on by one unit at a time, the base stays.
 *
 * @param newCodes new codes of each unit, in order
 * @param base how many units the base has
 * @param run how many units a run has
 * @returns the runs in order; none while there are too few units, or the base brought nothing
 * @see Guest, Namey & Chen (2020), A simple method to assess and report thematic saturation
 */
export function saturationRuns(
  newCodes: readonly number[],
  base = SATURATION_BASE,
  run = SATURATION_RUN,
): { baseCodes: number; runs: SaturationRun[] } {
  const sum = (from: number, to: number) =>
    newCodes.slice(from, to).reduce((total, one) => total + one, 0);
  const baseCodes = sum(0, base);
  const runs: SaturationRun[] = [];
  if (baseCodes === 0) return { baseCodes, runs };
  for (let from = base; from + run <= newCodes.length; from++) {
    const fresh = sum(from, from + run);
    runs.push({ from: from + 1, to: from + run, new: fresh, ratio: fresh / baseCodes });
  }
  return { baseCodes, runs };
}

/**
 * How many codes there would be if everything were coded, as far as codes that were given once or twice tell: a
 * lower bound, S + f1 (f1 − 1) / (2 (f2 + 1)), with its standard error by the delta method, the numbers of codes
 * given once, twice … taken as multinomial.
 *
 * @param mentions how often each code was given; those never given are left out
 * @example
 *   chao1([1, 1, 1, 2, 5]).estimate // 6.5
 * @see Chao (1984), Nonparametric estimation of the number of classes in a population; the bias-corrected form and
 *   its error are those of R's vegan::estimateR
 */
export function chao1(mentions: readonly number[]): { estimate: number; error: number } {
  const seen = mentions.filter((count) => count > 0).length;
  const once = mentions.filter((count) => count === 1).length;
  const twice = mentions.filter((count) => count === 2).length;
  const estimate = seen + (once * (once - 1)) / (2 * (twice + 1));
  if (seen === 0) return { estimate, error: 0 };
  // by how much the estimate moves with the number of codes given once, twice, oftener
  const slopes = [
    { codes: once, slope: 1 + (2 * once - 1) / (2 * (twice + 1)) },
    { codes: twice, slope: 1 - (once * (once - 1)) / (2 * (twice + 1) ** 2) },
    { codes: seen - once - twice, slope: 1 },
  ];
  const squares = slopes.reduce((sum, { codes, slope }) => sum + codes * slope ** 2, 0);
  const sum = slopes.reduce((total, { codes, slope }) => total + codes * slope, 0);
  return { estimate, error: Math.sqrt(Math.max(0, squares - sum ** 2 / estimate)) };
}
