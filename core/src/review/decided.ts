/** With less than this expected among what is too unlikely to be suggested, nothing is missed by leaving it out. */
const NEXT_TO_NOTHING = 0.5;

/**
 * Whether leaving a code's unlikely answers out may miss some, so that it is decided for everybody only by suggestions
 * that were decided: a model that knows too little of a code suggests nothing.
 *
 * @param unsuggested expected mentions among the answers that are too unlikely to be suggested
 */
export const mayMiss = (unsuggested: number): boolean => unsuggested >= NEXT_TO_NOTHING;
