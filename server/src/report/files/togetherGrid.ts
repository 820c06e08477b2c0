import type { CodesTogether, TogetherQuery } from '@yellow-thread/contract';
import { ruleNames } from '@yellow-thread/core/report';
import type { Fact } from './facts.js';
import type { Grid } from './grid.js';

/** Every pair of codes that occurs together, the most frequent first, before it is written as any kind of file. */
export function togetherGrid(
  { counts, weighted, codes }: CodesTogether,
  inOne: TogetherQuery['inOne'],
  facts: readonly Fact[],
): Grid {
  const pairs = codes.flatMap((one, i) =>
    codes.slice(i + 1).flatMap((other, k) => {
      const cell = one.cells[i + 1 + k];
      return cell && cell.unweighted > 0 ? [{ one, other, cell }] : [];
    }),
  );
  pairs.sort((x, y) => y.cell.both - x.cell.both);
  const unit = inOne === 'line' ? 'lines' : 'answers';
  const format = weighted ? 'decimal' : 'count';
  return {
    name: 'Codes together',
    facts: [
      ...facts,
      ['Counts', `${ruleNames[counts]}, in one ${inOne}`],
      ['Weighted', weighted ? 'yes' : 'no'],
      ['Jaccard', `${unit} with both codes, out of ${unit} with either (Jaccard 1901)`],
      ['Phi', 'correlation of having the two codes, −1 to 1 (Yule 1912)'],
      ['Lift', 'how many times as often together as by chance'],
      ['Date', new Date().toISOString().slice(0, 10)],
    ],
    columns: [
      { head: 'Code', format: 'text' },
      { head: 'Other code', format: 'text' },
      { head: `${unit} with both`, format },
      ...(weighted ? ([{ head: `${unit} with both, unweighted`, format: 'count' }] as const) : []),
      { head: 'Jaccard', format: 'decimal' },
      { head: 'Phi', format: 'decimal' },
      { head: 'Lift', format: 'decimal' },
      { head: `${unit} with the code`, format },
      { head: `${unit} with the other`, format },
      { head: `${unit} in all`, format },
    ],
    rows: pairs.map(({ one, other, cell }) => [
      ...[one.name, other.name, cell.both],
      ...(weighted ? [cell.unweighted] : []),
      ...[cell.jaccard, cell.phi, cell.lift, one.found, other.found, one.n],
    ]),
    heads: pairs.map(() => false),
  };
}
