import type { CodesTogether, TogetherQuery } from '@yellow-thread/contract';
import { ruleNames } from '@yellow-thread/core/report';
import type { Fact } from './facts.js';
import type { Grid } from './grid.js';
import { togetherGridTexts } from '../../wording/report.js';

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
    name: togetherGridTexts.codesTogether,
    facts: [
      ...facts,
      [togetherGridTexts.counts, togetherGridTexts.one(ruleNames[counts], inOne)],
      [togetherGridTexts.weighted, weighted ? 'yes' : 'no'],
      [
        togetherGridTexts.jaccard,
        `${unit} with both codes, out of ${unit} with either (Jaccard 1901)`,
      ],
      [togetherGridTexts.phi, togetherGridTexts.correlationHavingTwoCodes],
      [togetherGridTexts.lift, togetherGridTexts.howManyTimesOften],
      [togetherGridTexts.p, togetherGridTexts.howTested],
      ['Date', new Date().toISOString().slice(0, 10)],
    ],
    columns: [
      { head: togetherGridTexts.code, format: 'text' },
      { head: togetherGridTexts.otherCode, format: 'text' },
      { head: togetherGridTexts.both(unit), format },
      ...(weighted
        ? ([{ head: togetherGridTexts.bothUnweighted(unit), format: 'count' }] as const)
        : []),
      { head: togetherGridTexts.jaccard, format: 'decimal' },
      { head: togetherGridTexts.phi, format: 'decimal' },
      { head: togetherGridTexts.lift, format: 'decimal' },
      { head: togetherGridTexts.p, format: 'decimal' },
      { head: togetherGridTexts.code2(unit), format },
      { head: togetherGridTexts.other(unit), format },
      { head: togetherGridTexts.all(unit), format },
    ],
    rows: pairs.map(({ one, other, cell }) => [
      one.name,
      other.name,
      cell.both,
      ...(weighted ? [cell.unweighted] : []),
      cell.jaccard,
      cell.phi,
      cell.lift,
      cell.p,
      one.found,
      other.found,
      one.n,
    ]),
    heads: pairs.map(() => false),
  };
}
