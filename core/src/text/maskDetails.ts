import { escapePattern } from './escapePattern.js';

const details: [RegExp, string][] = [
  // tried from the beginning of a run of characters only: from each of them it would take the square of a long one
  [/(?<![^\s@<>()[\],;:])[^\s@<>()[\],;:]+@[^\s@<>()[\],;:]+\.\p{L}{2,}/giu, '[e-mail]'],
  [/\b(?:https?:\/\/|www\.)\S+/giu, '[link]'],
  [/(?<![\p{L}\p{N}.])@[\p{L}\p{N}_.]{2,}/gu, '[account]'],
  [
    /(?<![\p{L}\p{N}])(?!\d{4}-\d\d-\d\d(?!\d))(?:\+|00)?\(?\d(?:[\s()./-]?\d){6,14}(?![\p{L}\p{N}])/gu,
    '[number]',
  ],
  // a form of address and the name after it
  [
    /\b((?:Mr|Mrs|Ms|Miss|Mx|Dr|Prof|Captain|Capt|Sir|Herr|Frau|Mme|Mlle)\.?)(\s+\p{Lu}[\p{L}'’-]+)+/gu,
    '$1 [name]',
  ],
];

/**
 * Takes contact details out of a text, and names: those after a form of address, and those that are listed. Whatever
 * else could give a person away is left for a human to see. (Patterns: common practice, no source.)
 *
 * @param names words to be removed wherever they stand as words, in any case
 */
export function maskDetails(text: string, names: readonly string[] = []): string {
  let masked = text;
  for (const [pattern, mark] of details) masked = masked.replaceAll(pattern, mark);
  const listed = names.map((name) => name.trim()).filter((name) => name !== '');
  if (listed.length === 0) return masked;
  const pattern = listed
    .toSorted((x, y) => y.length - x.length)
    .map(escapePattern)
    .join('|');
  return masked.replaceAll(
    new RegExp(`(?<![\\p{L}\\p{N}])(?:${pattern})(?![\\p{L}\\p{N}])`, 'giu'),
    '[name]',
  );
}
