import { foldForMatching, foldForSearch } from '../text/index.js';

/** What is searched of a code. */
export interface FindableCode {
  id: string;
  name: string;
  themeName: string | null;
  definition: string;
  /** How many people mention it: among equals, the code in use comes first. */
  people: number;
}

/**
 * The codes that what was typed may mean, best first: name begins with it, a word of the name begins
 * with it, name holds it, theme holds it, all its words stand in name, theme or definition. Among equals
 * comes first what is likely here, then what is used most.
 *
 * @param likely how likely codes are at the place that is coded, by their ids
 */
export function findCodes<C extends FindableCode>(
  codes: readonly C[],
  typed: string,
  likely: ReadonlyMap<string, number> = new Map(),
): C[] {
  const query = foldForSearch(typed);
  const ranked = codes.map((code) => ({ code, rank: query === '' ? 1 : matchRank(code, query) }));
  return ranked
    .filter(({ rank }) => rank > 0)
    .sort(
      (x, y) =>
        y.rank - x.rank ||
        (likely.get(y.code.id) ?? 0) - (likely.get(x.code.id) ?? 0) ||
        y.code.people - x.code.people ||
        x.code.name.localeCompare(y.code.name, 'en'),
    )
    .map(({ code }) => code);
}

/** The code that has exactly this name (case and white space aside), if any. */
export function findCodeNamed<C extends { name: string }>(
  codes: readonly C[],
  name: string,
): C | undefined {
  const wanted = foldForMatching(name);
  return codes.find((code) => foldForMatching(code.name) === wanted);
}

function matchRank(code: FindableCode, query: string): number {
  const name = foldForSearch(code.name);
  if (name.startsWith(query)) return 5;
  if (name.split(/[^\p{L}\p{N}]+/u).some((word) => word.startsWith(query))) return 4;
  if (name.includes(query)) return 3;
  const theme = foldForSearch(code.themeName ?? '');
  if (theme.includes(query)) return 2;
  const everything = `${name} ${theme} ${foldForSearch(code.definition)}`;
  return query.split(' ').every((word) => everything.includes(word)) ? 1 : 0;
}
