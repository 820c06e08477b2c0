/** What a model predicted for settled answers that it had not seen: those with the code, and those without it. */
export interface Unseen {
  yes: readonly number[];
  no: readonly number[];
}

/**
 * Precision and recall if everything with a probability at or above a line had been taken.
 *
 * @returns precision is null where nothing lies above, recall where nothing has the code
 */
export function measureAtThreshold({ yes, no }: Unseen, threshold: number) {
  const right = yes.filter((p) => p >= threshold).length;
  const wrong = no.filter((p) => p >= threshold).length;
  return {
    precision: right + wrong === 0 ? null : right / (right + wrong),
    recall: yes.length === 0 ? null : right / yes.length,
  };
}

/**
 * What was said against what was found, by equal steps of probability; steps with nothing in them are left out.
 *
 * @returns for each step the mean probability said, the share that has the code, and its share of all answers
 * @see DeGroot & Fienberg (1983) The comparison and evaluation of forecasters (reliability diagram)
 */
export function measureCalibration({ yes, no }: Unseen, steps = 5) {
  const stepOf = (p: number) => Math.min(steps - 1, Math.floor(p * steps));
  const all = yes.length + no.length;
  return Array.from({ length: steps }, (_, step) => {
    const withCode = yes.filter((p) => stepOf(p) === step);
    const without = no.filter((p) => stepOf(p) === step);
    const count = withCode.length + without.length;
    const said = [...withCode, ...without].reduce((sum, p) => sum + p, 0) / count;
    return { said, found: withCode.length / count, share: count / all };
  }).filter(({ share }) => share > 0);
}
