/** How many decimals percentages have: as many as fit, or as many as somebody chose. */
export type Decimals = 'fitting' | '0' | '1' | '2';

const FEW = 100;

/** Decimals that a percentage of a base of this size can bear. */
export const fittingDecimals = (base: number): number => (base < FEW ? 0 : 1);

/** @param fitting how many fit where nobody chose */
export const decimalsOf = (decimals: Decimals, fitting: number): number =>
  decimals === 'fitting' ? fitting : Number(decimals);
