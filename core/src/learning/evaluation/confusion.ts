/** Two codes that the models take for each other on settled answers that they did not see. */
export interface ConfusedCodes {
  /** The one that was missed … */
  codeId: string;
  /** … where this one was seen, though it is not there … */
  takenFor: string;
  /** The number of such answers. */
  answers: number;
}

/** What a code's model says of the settled answers that it did not see, by place among these. */
export interface UnseenOutcome {
  codeId: string;
  threshold: number;
  settledLabels: Uint8Array;
  outOfFold: Float64Array;
}

const FEWEST_ANSWERS = 2;
const MOST_PAIRS = 12;

/** Which codes are taken for which others, most often first. */
export function findConfused(codes: readonly UnseenOutcome[]): ConfusedCodes[] {
  const found: ConfusedCodes[] = [];
  const missed = codes.map(({ settledLabels, outOfFold, threshold }) =>
    [...settledLabels.keys()].filter((i) => settledLabels[i] === 1 && outOfFold[i]! < threshold),
  );
  codes.forEach((one, c) => {
    for (const other of codes) {
      if (other === one) continue;
      const answers = missed[c]!.filter(
        (i) => other.settledLabels[i] === 0 && other.outOfFold[i]! >= other.threshold,
      ).length;
      if (answers >= FEWEST_ANSWERS)
        found.push({ codeId: one.codeId, takenFor: other.codeId, answers });
    }
  });
  return found.sort((x, y) => y.answers - x.answers).slice(0, MOST_PAIRS);
}
