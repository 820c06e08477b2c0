import type { Span } from '../text/index.js';
import { splitWords } from '../text/index.js';

/**
 * The line of an answer that a suggestion rests on: the one whose words are the strongest evidence for it.
 *
 * @param evidence the words that led to the suggestion, with what each adds to its score
 * @returns the place of the line; null where no line holds such a word, or there is but one
 */
export function lineOfEvidence(
  text: string,
  lines: readonly Span[],
  evidence: readonly { word: string; weight: number }[],
): number | null {
  if (lines.length < 2 || evidence.length === 0) return null;
  const weightOf = new Map(evidence.map(({ word, weight }) => [word, weight]));
  let best: number | null = null;
  let most = 0;
  lines.forEach(({ start, end }, l) => {
    const forms = new Set(splitWords(text.slice(start, end)).map(({ form }) => form));
    let sum = 0;
    for (const form of forms) sum += Math.max(0, weightOf.get(form) ?? 0);
    if (sum > most) [best, most] = [l, sum];
  });
  return best;
}
