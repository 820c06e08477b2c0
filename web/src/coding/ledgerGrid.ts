/** Two columns of a ledger row: the words, in a measure that can be read, and their codes beside them. */
export const ledgerGrid =
  'grid max-w-[1120px] grid-cols-[minmax(0,1fr)_minmax(220px,300px)] gap-x-10 max-[760px]:grid-cols-[minmax(0,1fr)_minmax(0,38%)] max-[760px]:gap-x-4 max-sm:grid-cols-1';
