import type { Report } from '@yellow-thread/contract';
import { columnName, FEWEST_SAMPLED } from '@yellow-thread/core/report';
import { asCount } from '../lib/numbers.js';
import type { TableChoice } from './tableChoice.js';
import { crosstabHeadTexts } from './texts.js';

type Column = Report['columns'][number];

/** What stands beside the counted columns. */
export interface Beside {
  difference: boolean;
  /** Places of the columns that shares are estimated of. */
  estimated: number[];
  whole: boolean;
}

export const besideOf = ({ columns, rows, counts }: Report): Beside => ({
  difference: rows.some(({ difference }) => difference),
  // where everything is estimated, nothing stands beside it
  estimated:
    counts === 'estimated'
      ? []
      : columns.flatMap((_, c) => (rows.some(({ cells }) => cells[c]!.estimated) ? [c] : [])),
  whole: rows.some(({ whole }) => whole),
});

/** Columns with their bases; those of a second variable under the first's. */
export function CrosstabHead({
  report,
  beside,
  choice,
}: {
  report: Report;
  beside: Beside;
  choice: TableChoice;
}) {
  const { columns, weighted, level } = report;
  const isNested = columns.some(({ under }) => under !== null);
  const spans = columns.reduce<{ under: string | null; count: number }[]>((all, { under }) => {
    const last = all.at(-1);
    if (last && last.under === under) last.count += 1;
    else all.push({ under, count: 1 });
    return all;
  }, []);
  const head =
    'sticky z-10 border-b border-rule bg-paper py-2 pl-[calc(1.25rem+var(--letters))] text-right align-bottom';
  const top = isNested ? 'top-7' : 'top-0';
  const percent = Math.round(100 * level);
  const pair = choice.difference?.split('-').map((place) => columns[Number(place)]?.label);
  return (
    <thead>
      {isNested && (
        <tr>
          <th className="sticky left-0 top-0 z-20 h-7 bg-paper" />
          {spans.map(({ under, count }, s) => (
            <th
              key={s}
              scope="colgroup"
              colSpan={count}
              className="sticky top-0 z-10 h-7 bg-paper pl-5 text-left font-semibold text-soft"
            >
              {under !== null && (
                <span className="block truncate border-b border-rule">{under}</span>
              )}
            </th>
          ))}
        </tr>
      )}
      <tr>
        <th
          scope="col"
          className={`sticky left-0 ${top} z-20 min-w-[220px] border-b border-rule bg-paper py-2 text-left font-normal text-soft`}
        >
          {
            {
              book: crosstabHeadTexts.themeCode,
              themes: crosstabHeadTexts.theme,
              codes: crosstabHeadTexts.code,
              bundles: crosstabHeadTexts.bundleCode,
            }[choice.rows]
          }
        </th>
        {columns.map((column) => (
          <th key={column.key} scope="col" className={`${head} ${top} min-w-[108px] font-semibold`}>
            {column.label}
            {column.letter && (
              <span className="ml-1.5 font-normal text-soft" title={crosstabHeadTexts.letterTests}>
                {column.letter}
              </span>
            )}
            <span className="figures block text-[12px] font-normal text-soft">
              {baseOf(report.counts, column)}
            </span>
            {weighted && (
              <span className="figures block text-[12px] font-normal text-soft">
                {crosstabHeadTexts.weightedEffective(
                  Math.round(column.countedWeighted),
                  Math.round(column.countedEffective),
                )}
              </span>
            )}
          </th>
        ))}
        {beside.difference && pair && (
          <th scope="col" className={`${head} ${top} min-w-[130px] font-semibold`}>
            {crosstabHeadTexts.difference}
            <span className="block text-[12px] font-normal text-soft">
              {pair.join(' minus ')}, {percent}%
            </span>
          </th>
        )}
        {beside.estimated.map((c) => (
          <th
            key={`estimated ${columns[c]!.key}`}
            scope="col"
            className={`${head} ${top} min-w-[130px] pr-3 font-semibold`}
          >
            {columnName(columns[c]!)}
            <span className="block text-[12px] font-normal text-soft">
              {crosstabHeadTexts.estimatedAllWhoAnswered}
            </span>
          </th>
        ))}
        {beside.whole && (
          <th scope="col" className={`${head} ${top} min-w-[90px] font-semibold`}>
            {crosstabHeadTexts.anyDifference}
            <span className="block text-[12px] font-normal text-soft">
              {crosstabHeadTexts.acrossColumns}
            </span>
          </th>
        )}
      </tr>
    </thead>
  );
}

/** Of how many people a column's figures are. */
function baseOf(counts: Report['counts'], { counted, settled, answered }: Column): string {
  switch (counts) {
    case 'decided':
      return `${asCount(answered)} answered`;
    case 'estimated':
      return counted < FEWEST_SAMPLED
        ? crosstabHeadTexts.readNeeded(counted, FEWEST_SAMPLED)
        : crosstabHeadTexts.read(counted, answered);
    case 'sample':
      return crosstabHeadTexts.sample(counted);
    case 'settled':
      return crosstabHeadTexts.settled(settled, answered);
  }
}
