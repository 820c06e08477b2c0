import { foldForSearch } from '../text/index.js';

const LONGEST_PART = 60;

/**
 * The name of an exported file, by what is in it: "ferry-2026_table_improve_2026-11-29.xlsx". Letters of
 * other scripts stay; accents, spaces and punctuation do not.
 *
 * @param parts study, kind of file and whatever distinguishes it; empty ones are left out
 * @param date as ISO 8601 writes it: "2026-11-29"
 * @example
 *   fileNameOf(['Ferry 2026', 'table'], '2026-11-29', 'csv') // 'ferry-2026_table_2026-11-29.csv'
 */
export function fileNameOf(parts: readonly string[], date: string, extension: string): string {
  const plain = parts
    .map((part) =>
      foldForSearch(part)
        .replaceAll(/[^\p{L}\p{M}\p{N}]+/gu, '-')
        .slice(0, LONGEST_PART)
        .replaceAll(/^-+|-+$/gu, ''),
    )
    .filter((part) => part !== '');
  return `${[...plain, date].join('_')}.${extension}`;
}
