/** How many decimals percentages have: as many as their base can bear, or as many as somebody chose. */
export type Decimals = 'fitting' | '0' | '1' | '2';

const FEW = 100;

/** @param base the people that a percentage is of */
export const decimalsOf = (decimals: Decimals, base: number): number =>
  decimals === 'fitting' ? (base < FEW ? 0 : 1) : Number(decimals);
