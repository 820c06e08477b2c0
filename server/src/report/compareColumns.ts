import type {
  BaseKind,
  CountingRule,
  ReportCell,
  ReportQuery,
  ReportRow,
} from '@yellow-thread/contract';
import {
  asGroupShare,
  compareEstimates,
  compareGroups,
  compareWithRest,
  estimateOf,
  exceededColumns,
  exceededEstimates,
  listEstimateTests,
  listTests,
  type AgainstRest,
  type CrosstabCell,
} from '@yellow-thread/core/report';
import {
  chiSquare,
  isTooThin,
  raoScott,
  type EstimatedShare,
} from '@yellow-thread/core/statistics';
import { problems } from '../wording/problems.js';
import { areComparable, type PlacedColumn } from './columns.js';

/** A cell on fewer people is not compared. */
export const FEWEST_COMPARED = 10;

interface Comparison extends Pick<
  ReportQuery,
  'test' | 'against' | 'level' | 'difference' | 'tests'
> {
  base: BaseKind;
  rule: CountingRule;
}

/** Which columns are compared how; `testRow` compares the cells of a row. */
export function compareColumns(columns: PlacedColumn[], query: Comparison, isWeighted: boolean) {
  const { test, against, base, rule } = query;
  const level = Number(query.level) / 100;
  const isEstimated = rule === 'estimated';
  const inSets = columns.filter(({ comparedIn }) => comparedIn !== null);
  // shares of mentions are not of independent people
  const isTested = test !== 'off' && base !== 'mentions' && inSets.length > 1;
  const pairable = isTested && against === 'each';
  const letters = columns.map((column) =>
    pairable && column.comparedIn !== null ? letterOf(inSets.indexOf(column)) : null,
  );
  const overlapping = inSets.flatMap((one, i) =>
    inSets
      .slice(i + 1)
      .filter((other) => one.comparedIn === other.comparedIn && !areComparable(one, other))
      .map((other): [string, string] => [one.label, other.label]),
  );
  const comparable = columns.map((one) => columns.map((other) => areComparable(one, other)));
  const isPartition = inSets.length > 1 && overlapping.length === 0;
  const pair = query.difference?.split('-').map(Number);
  if (pair) {
    const [one, other] = pair.map((place) => columns[place]);
    if (!one || !other || !areComparable(one, other)) throw problems.noSuchDifference();
  }
  const options = { level, isWeighted, correction: test === 'off' ? ('none' as const) : test };
  const mayCompare = (i: number, j: number) => comparable[i]![j]!;

  const testCounted = (cells: CrosstabCell[]): Tested => {
    const groups = cells.map((cell, c) =>
      columns[c]!.comparedIn === null || cell.share === null || cell.base.people < FEWEST_COMPARED
        ? null
        : asGroupShare(cell),
    );
    const parts = cells.filter((_, c) => columns[c]!.comparedIn !== null).map(asGroupShare);
    const hasWhole = isTested && isPartition && !isTooThin(parts);
    return {
      exceeds: pairable ? exceededColumns(groups, options, mayCompare) : [],
      rest:
        isTested && against === 'rest'
          ? compareWithRest(groups, asGroupShare(cells[0]!), options)
          : [],
      tests:
        query.tests && isTested
          ? listTests(
              groups,
              against === 'rest' ? asGroupShare(cells[0]!) : null,
              options,
              mayCompare,
            )
          : [],
      whole: hasWhole ? (isWeighted ? raoScott(parts) : chiSquare(parts)) : null,
      difference: pair ? differenceOf(cells[pair[0]!]!, cells[pair[1]!]!, isWeighted, level) : null,
    };
  };
  const testEstimated = (estimates: readonly (EstimatedShare | null)[]): Tested => {
    const shares = estimates.map(
      (one) => one && { share: estimateOf(one).value, n: one.effective },
    );
    const compared = shares.map((one, c) => (columns[c]!.comparedIn === null ? null : one));
    const [one, other] = pair?.map((place) => shares[place]!) ?? [];
    return {
      exceeds: pairable ? exceededEstimates(compared, options, mayCompare) : [],
      tests: query.tests && pairable ? listEstimateTests(compared, options, mayCompare) : [],
      rest: [],
      whole: null,
      difference: one && other ? compareEstimates(one, other, level) : null,
    };
  };
  const untested: Tested = { exceeds: [], tests: [], rest: [], whole: null, difference: null };

  const testRow = (
    cells: CrosstabCell[],
    estimates: readonly (EstimatedShare | null)[] | null,
  ): Pick<ReportRow, 'cells' | 'whole' | 'difference' | 'tests'> => {
    // a count that is a minimum can still become anything
    const isAtLeast = cells.some(({ undecided }) => undecided > 0);
    const tested = isAtLeast
      ? untested
      : isEstimated
        ? testEstimated(estimates ?? [])
        : testCounted(cells);
    return {
      cells: cells.map((cell, c): ReportCell => ({
        ...cell,
        exceeds: (tested.exceeds[c] ?? []).map((place) => letters[place]!),
        rest: tested.rest[c] ?? null,
        estimated: null,
      })),
      whole: tested.whole,
      difference: tested.difference,
      tests: tested.tests,
    };
  };
  return { letters, overlapping, testRow };
}

interface Tested {
  tests: ReportRow['tests'];
  exceeds: number[][];
  rest: AgainstRest[];
  whole: ReportRow['whole'];
  difference: ReportRow['difference'];
}

function differenceOf(one: CrosstabCell, other: CrosstabCell, isWeighted: boolean, level: number) {
  if (one.share === null || other.share === null || one.interval === null) return null;
  return compareGroups(asGroupShare(one), asGroupShare(other), { isWeighted, level });
}

const LETTERS = 26;
/** A, B … Z, AA, AB … */
const letterOf = (place: number): string =>
  (place >= LETTERS ? letterOf(Math.floor(place / LETTERS) - 1) : '') +
  String.fromCharCode(65 + (place % LETTERS));
