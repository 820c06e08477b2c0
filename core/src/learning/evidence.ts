import type { TextVector } from './features.js';
import type { LinearModel } from './logistic.js';
import type { Calibration } from './platt.js';

/** What a word of a text adds to the log-odds of a code. */
export interface WordPart {
  word: string;
  weight: number;
}

/**
 * Takes the log-odds of a text apart into what each of its words adds. A pair of words is shared
 * equally by the two, a run of characters goes to the words that it stands in. The model is linear, so
 * Σ weights + `constant` is the log-odds exactly.
 */
export function explain(
  vector: TextVector,
  model: LinearModel,
  { slope, shift }: Calibration,
): { parts: WordPart[]; constant: number } {
  const sums = new Map<string, number>();
  vector.columns.forEach((column, k) => {
    const contribution = slope * vector.values[k]! * model.weights[column]!;
    for (const [word, part] of vector.sources[k]!)
      sums.set(word, (sums.get(word) ?? 0) + part * contribution);
  });
  return {
    parts: [...sums].map(([word, weight]) => ({ word, weight })),
    constant: slope * model.intercept + shift,
  };
}
