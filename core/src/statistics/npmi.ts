/**
 * Normalised pointwise mutual information: how much more often two things meet than by chance, from −1 where they never
 * meet, by way of 0 where they are independent, to 1 where neither is without the other.
 *
 * @param both how often they meet
 * @param one how often the one is there
 * @param other how often the other is there
 * @param all how many places there are
 * @see Bouma (2009) Normalized (pointwise) mutual information in collocation extraction
 */
export function npmi(both: number, one: number, other: number, all: number): number {
  if (both === 0) return -1;
  // what meets everywhere is never apart
  if (both === all) return 1;
  return Math.log((both * all) / (one * other)) / -Math.log(both / all);
}
