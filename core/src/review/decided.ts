/** With less than this expected among what is too unlikely to be suggested, nothing is missed by leaving it out. */
const NEXT_TO_NOTHING = 0.5;
/** A model with an F1 below this finds too little, or too much that is wrong. */
export const LEAST_F1 = 0.3;

/**
 * Whether leaving a code's unlikely answers out may miss some, so that it is decided for everybody only by suggestions
 * that were decided: a model that knows too little of a code suggests nothing.
 */
export const mayMiss = ({
  unsuggested,
  weak,
  f1,
}: {
  /** Expected mentions among the answers that are too unlikely to be suggested. */
  unsuggested: number;
  /** Whether it learnt from few examples. */
  weak: boolean;
  /** Out-of-fold, at its line. */
  f1: number;
}): boolean => weak || f1 < LEAST_F1 || unsuggested >= NEXT_TO_NOTHING;
