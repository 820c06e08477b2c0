/* eslint-disable no-loss-of-precision -- coefficients with all the digits that were published */
const a = [
  3.387132872796366608, 133.14166789178437745, 1971.5909503065514427, 13731.693765509461125,
  45921.953931549871457, 67265.770927008700853, 33430.575583588128105, 2509.0809287301226727,
];
const b = [
  1, 42.313330701600911252, 687.1870074920579083, 5394.1960214247511077, 21213.794301586595867,
  39307.89580009271061, 28729.085735721942674, 5226.495278852545925,
];
const c = [
  1.42343711074968357734, 4.6303378461565452959, 5.7694972214606914055, 3.64784832476320460504,
  1.27045825245236838258, 0.24178072517745061177, 0.0227238449892691845833,
  7.7454501427834140764e-4,
];
const d = [
  1, 2.05319162663775882187, 1.6763848301838038494, 0.68976733498510000455, 0.14810397642748007459,
  0.0151986665636164571966, 5.475938084995344946e-4, 1.05075007164441684324e-9,
];
const e = [
  6.6579046435011037772, 5.4637849111641143699, 1.7848265399172913358, 0.29656057182850489123,
  0.026532189526576123093, 0.0012426609473880784386, 2.71155556874348757815e-5,
  2.01033439929228813265e-7,
];
const f = [
  1, 0.59983220655588793769, 0.13692988092273580531, 0.0148753612908506148525,
  7.868691311456132591e-4, 1.8463183175100546818e-5, 1.4215117583164458887e-7,
  2.04426310338993978564e-15,
];

/** By Horner's rule. */
function polynomial(terms: readonly number[], r: number): number {
  let sum = 0;
  for (let i = terms.length - 1; i >= 0; i--) sum = sum * r + terms[i]!;
  return sum;
}
const ratio = (over: readonly number[], under: readonly number[], r: number): number =>
  polynomial(over, r) / polynomial(under, r);

/**
 * The value below which a standard normal variable falls with probability `p`.
 *
 * @param p between 0 and 1, exclusive
 * @throws RangeError when `p` is outside (0, 1)
 * @example
 *   normalQuantile(0.975) // 1.959964 (Abramowitz & Stegun 1964, table 26.5)
 * @see Wichura (1988), Algorithm AS 241: The percentage points of the normal distribution, PPND16
 */
export function normalQuantile(p: number): number {
  if (!(p > 0 && p < 1)) throw new RangeError(`A probability must lie between 0 and 1, not ${p}.`);
  const q = p - 0.5;
  if (Math.abs(q) <= 0.425) return q * ratio(a, b, 0.180625 - q * q);
  const r = Math.sqrt(-Math.log(q < 0 ? p : 1 - p));
  const x = r <= 5 ? ratio(c, d, r - 1.6) : ratio(e, f, r - 5);
  return q < 0 ? -x : x;
}
