import { foldForMatching } from '../text/index.js';
import { RowList } from './findings.js';
import { valueCountsTexts } from '../wording/sheet.js';

/** A category as it is written in a sheet, how often, and what it is to be called. */
export interface CategoryCount {
  value: string;
  count: number;
  label: string;
}

const MOST_VALUES = 1_000;

/** Counts the values of one category variable, and finds those that are spelled in several ways. */
export function countValues() {
  const values = new Map<string, { count: number; rows: RowList }>();
  let tooMany = false;
  return {
    add(value: string, row: number): void {
      let known = values.get(value);
      if (!known) {
        if (values.size >= MOST_VALUES) {
          tooMany = true;
          return;
        }
        known = { count: 0, rows: new RowList() };
        values.set(value, known);
      }
      known.count += 1;
      known.rows.add(row);
    },
    /** How many different values there are, as far as they were counted. */
    different: () => values.size,
    /**
     * The categories, as often as they occur; null when there are too many to be categories.
     *
     * @param labels what the study calls such categories already: spellings are joined to these
     * @param join whether spellings that differ in case or white space only are called by one name
     */
    categories(
      join: boolean,
      labels: readonly string[] = [],
    ): { categories: CategoryCount[]; joined: string[]; rows: RowList } | null {
      if (tooMany) return null;
      const spellings = new Map<string, string[]>();
      for (const value of values.keys()) {
        const key = foldForMatching(value);
        spellings.set(key, [...(spellings.get(key) ?? []), value]);
      }
      const known = new Map(labels.map((label) => [foldForMatching(label), label]));
      const called = new Map<string, string>();
      const joined: string[] = [];
      const rows: number[] = [];
      for (const [key, alike] of spellings) {
        const label =
          known.get(key) ??
          alike.reduce((best, one) =>
            values.get(one)!.count > values.get(best)!.count ? one : best,
          );
        for (const value of alike) called.set(value, join ? label : value);
        const others = alike.filter((value) => value !== label);
        if (others.length === 0) continue;
        joined.push(valueCountsTexts.as(others.map((value) => `“${value}”`).join(', '), label));
        rows.push(...others.flatMap((value) => values.get(value)!.rows.rows));
      }
      const list = new RowList();
      for (const row of rows.sort((x, y) => x - y)) list.add(row);
      return {
        categories: [...values]
          .map(([value, { count }]) => ({ value, count, label: called.get(value)! }))
          .sort((x, y) => y.count - x.count),
        joined,
        rows: list,
      };
    },
  };
}

/** A text that may be no answer: how often it occurs, and whether it counts as an answer. */
export interface ProposedNoAnswer {
  text: string;
  count: number;
  counts: 'no_answer' | 'answer';
}
