/** Where a suggestion stands. */
export type Decision = 'open' | 'accepted' | 'refused';

/** What the figures of a review are made from. */
export interface ReviewCounts {
  /** Probabilities of the open suggestions, highest first. */
  open: number[];
  accepted: number;
  refused: number;
  /** Answers known to mention the code, by hand or accepted. */
  known: number;
}

/**
 * The counts after a suggestion of some probability went from one decision to another, so that they need
 * not be asked for after each. Other fields are kept.
 */
export function redecide<Counts extends ReviewCounts>(
  counts: Counts,
  probability: number,
  from: Decision,
  to: Decision,
): Counts {
  const open = counts.open.slice();
  if (from === 'open') open.splice(open.indexOf(probability), 1);
  if (to === 'open') {
    const place = open.findIndex((one) => one < probability);
    open.splice(place === -1 ? open.length : place, 0, probability);
  }
  const step = (decision: Decision) => Number(to === decision) - Number(from === decision);
  return {
    ...counts,
    open,
    accepted: counts.accepted + step('accepted'),
    refused: counts.refused + step('refused'),
    known: counts.known + step('accepted'),
  };
}
