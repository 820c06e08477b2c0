/** Where a suggestion stands. */
export type Decision = 'open' | 'accepted' | 'refused';

/** What the figures of a review are made from. */
export interface ReviewCounts {
  /** Probabilities of the open suggestions, highest first. */
  open: number[];
  accepted: number;
  acceptedInBulk: number;
  refused: number;
  refusedInBulk: number;
  /** Sums of the probabilities of those in bulk. */
  acceptedExpected: number;
  refusedExpected: number;
  /** Answers known to mention the code: by hand, or read and accepted. */
  known: number;
}

/**
 * The counts after somebody read a suggestion and decided it, so that they need not be asked for after each. Other
 * fields are kept.
 *
 * @param suggestion as it stood before
 */
export function redecide<Counts extends ReviewCounts>(
  counts: Counts,
  { probability, state: from, bulk }: { probability: number; state: Decision; bulk: boolean },
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
    acceptedInBulk: counts.acceptedInBulk - Number(bulk && from === 'accepted'),
    refused: counts.refused + step('refused'),
    refusedInBulk: counts.refusedInBulk - Number(bulk && from === 'refused'),
    acceptedExpected: counts.acceptedExpected - (bulk && from === 'accepted' ? probability : 0),
    refusedExpected: counts.refusedExpected - (bulk && from === 'refused' ? probability : 0),
    // what was accepted in bulk is known only once it was read
    known: counts.known + Number(to === 'accepted') - Number(from === 'accepted' && !bulk),
  };
}
