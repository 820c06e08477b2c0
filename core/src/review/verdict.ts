/** A model with an F1 below this finds too little, or too much that is wrong. */
const LEAST_F1 = 0.3;
const LEAST_AVERAGE_PRECISION = 0.3;
const GOOD_PRECISION = 0.8;
const GOOD_RECALL = 0.6;

/** What a code's model is good for. */
export type ModelVerdict = 'good' | 'usable' | 'little_evidence' | 'unreliable';

/**
 * What a code's model is good for, by what was measured out-of-fold. The limits are common practice, no source.
 *
 * @param isWeak whether it learnt from few examples
 */
export function modelVerdict(
  {
    precision,
    recall,
    f1,
    averagePrecision,
  }: Record<'precision' | 'recall' | 'f1' | 'averagePrecision', number>,
  isWeak: boolean,
): ModelVerdict {
  if (isWeak) return 'little_evidence';
  if (precision >= GOOD_PRECISION && recall >= GOOD_RECALL) return 'good';
  return averagePrecision < LEAST_AVERAGE_PRECISION || f1 < LEAST_F1 ? 'unreliable' : 'usable';
}

/** Whether a model can be left to decide by itself. */
export const isReliable = (verdict: ModelVerdict | null): boolean =>
  verdict === 'good' || verdict === 'usable';

/** What is less likely than this would crowd out what is likely where suggestions stand beside answers. */
export const WORTH_A_LOOK = 0.2;
