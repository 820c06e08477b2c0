import type { Report, ReportCell, ReportQuery, ReportRow } from '@yellow-thread/contract';
import { addTo, countOfBoth, emptyBitset, type Bitset } from '@yellow-thread/core/groups';
import {
  asGroupShare,
  compareGroups,
  compareWithRest,
  countCrosstab,
  exceededColumns,
  measureBase,
  type CrosstabCell,
} from '@yellow-thread/core/report';
import { shareApplying } from '@yellow-thread/core/review';
import { chiSquare, isTooThin, raoScott } from '@yellow-thread/core/statistics';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row, type QuestionRow } from '../database/index.js';
import { readPeople, type People } from '../groups/index.js';
import { problems } from '../problems.js';
import { areComparable, placeColumns, type PlacedColumn } from './columns.js';
import { estimateShares } from './estimates.js';
import { inOrder, readLines, rowOf, type Line } from './lines.js';
import { sumOrigins } from './tableMaterial.js';

/**
 * A table of codes and themes by groups, questions or background.
 *
 * @param within ids of the respondents whom it is restricted to; null for everybody
 * @throws Problem not_found, too_many_columns, no_such_difference
 */
export async function makeReport(
  em: EntityManager,
  studyId: number,
  question: QuestionRow,
  query: ReportQuery,
  within: readonly number[] | null,
): Promise<Report> {
  const people = await readPeople(em, studyId);
  const [columns, { codeIds, lines }] = await Promise.all([
    placeColumns(em, studyId, people, question, query, asSet(people, within)),
    readLines(em, studyId, query),
  ]);
  const weights = query.weighted ? people.weights : null;
  const cells = countLines(lines, codeIds, columns, weights, query);
  const compared = comparing(columns, query, weights !== null);
  const estimates = query.estimated
    ? await estimateShares(em, people, { lines, codeIds, columns, weights, query })
    : null;
  const materials = [...new Set(columns.map((column) => column.material))];
  const table = lines.flatMap((line, l) => {
    const counted = cells[l]!;
    if (counted.every((cell) => cell.people === 0)) return [];
    const tested = compared.testRow(counted);
    const made: ReportRow = {
      kind: line.kind,
      id: line.id,
      parentId: line.parentId,
      name: line.name,
      decidedForAll: line.codeIds.every((id) => materials.every((one) => one.isDecidedForAll(id))),
      ...tested,
      ...(estimates && {
        cells: tested.cells.map((cell, c) => ({ ...cell, estimated: estimates.cells[l]![c]! })),
      }),
    };
    return [{ line, made, size: sizeOf(made, query.order) }];
  });
  return {
    weighted: weights !== null,
    base: query.base,
    test: query.test,
    level: Number(query.level) / 100,
    against: query.against,
    decimals: query.decimals,
    columns: columns.map((column, c) => ({
      ...describeColumn(column, weights),
      letter: compared.letters[c] ?? null,
    })),
    rows: inOrder(table, query.order).map(({ made }) => made),
    overlapping: compared.overlapping,
    origins: sumOrigins(materials),
    checked: await readChecked(em, [
      ...new Set(materials.flatMap(({ parts }) => parts.map((part) => part.questionId))),
    ]),
    estimatedFrom: estimates?.from ?? [],
    notEstimated: estimates?.why ?? null,
  };
}

/** Respondents by id as a set; null for everybody. */
export function asSet(people: People, ids: readonly number[] | null): Bitset | null {
  if (!ids) return null;
  const set = emptyBitset(people.ids.length);
  for (const id of ids) {
    const i = people.indexOf(id);
    if (i >= 0) addTo(set, i);
  }
  return set;
}

/** A cell on fewer people is not compared. */
const FEWEST_COMPARED = 10;

function sizeOf({ cells, difference }: ReportRow, order: ReportQuery['order']): number {
  if (order !== 'difference') return cells[0]?.share ?? 0;
  if (difference) return Math.abs(difference.value);
  const shares = cells
    .slice(1)
    .flatMap(({ share, base }) => (share === null || base.people < FEWEST_COMPARED ? [] : [share]));
  return shares.length < 2 ? 0 : Math.max(...shares) - Math.min(...shares);
}

/** Which columns are compared how; `testRow` compares the cells of a row. */
function comparing(columns: PlacedColumn[], query: ReportQuery, isWeighted: boolean) {
  const { test, against, base } = query;
  const level = Number(query.level) / 100;
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

  const testRow = (cells: CrosstabCell[]): Pick<ReportRow, 'cells' | 'whole' | 'difference'> => {
    const groups = cells.map((cell, c) =>
      columns[c]!.comparedIn === null || cell.share === null || cell.base.people < FEWEST_COMPARED
        ? null
        : asGroupShare(cell),
    );
    const options = { level, isWeighted, correction: test === 'off' ? ('none' as const) : test };
    const exceeds = pairable ? exceededColumns(groups, options, (i, j) => comparable[i]![j]!) : [];
    const rest =
      isTested && against === 'rest'
        ? compareWithRest(groups, asGroupShare(cells[0]!), options)
        : [];
    const parts = cells.filter((_, c) => columns[c]!.comparedIn !== null).map(asGroupShare);
    const whole =
      isTested && isPartition && !isTooThin(parts)
        ? isWeighted
          ? raoScott(parts)
          : chiSquare(parts)
        : null;
    return {
      cells: cells.map((cell, c): ReportCell => ({
        ...cell,
        exceeds: (exceeds[c] ?? []).map((place) => letters[place]!),
        rest: rest[c] ?? null,
        estimated: null,
      })),
      whole,
      difference: pair ? differenceOf(cells[pair[0]!]!, cells[pair[1]!]!, isWeighted, level) : null,
    };
  };
  return { letters, overlapping, testRow };
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

/** What spot checks found of the mentions that were accepted in bulk. */
async function readChecked(
  em: EntityManager,
  questionIds: readonly number[],
): Promise<Report['checked']> {
  const { read, applies } = await row<{ read: number; applies: number }>(
    em,
    `select count(*)::int as read, (count(*) filter (where a.verdict = 'applies'))::int as applies
     from spot_check_answer a join spot_check k on k.id = a.check_id join code c on c.id = k.code_id
     where k.question_id = any(?::int[]) and k.side = 'accepted' and a.verdict in ('applies', 'not')`,
    [questionIds],
  );
  const found = shareApplying(applies, read - applies);
  return found && { read, applies, interval: found.interval };
}

/** Counts every line in every column; columns about the same material are counted together. */
function countLines(
  lines: Line[],
  codeIds: readonly string[],
  columns: PlacedColumn[],
  weights: Float64Array | null,
  { base, level }: ReportQuery,
): CrosstabCell[][] {
  const cells = lines.map(() => new Array<CrosstabCell>(columns.length));
  for (const material of new Set(columns.map((column) => column.material))) {
    const places = columns.flatMap((column, c) => (column.material === material ? [c] : []));
    countCrosstab({
      rows: lines.map((line) => rowOf(material, line)),
      columns: places.map((c) => columns[c]!),
      asked: material.asked,
      answered: material.answered,
      weights,
      base,
      level: Number(level) / 100,
      ...(base === 'mentions' && { codes: codeIds.map(material.rowOf) }),
    }).forEach((counted, l) =>
      counted.forEach((cell, place) => {
        cells[l]![places[place]!] = cell;
      }),
    );
  }
  return cells;
}

function describeColumn(
  { key, label, under, rule, members, material }: PlacedColumn,
  weights: Float64Array | null,
) {
  const settled = measureBase(material.settled, members, weights);
  return {
    ...{ key, label, under, rule },
    asked: countOfBoth(material.asked, members),
    answered: countOfBoth(material.answered, members),
    settled: settled.people,
    settledWeighted: settled.weighted,
    settledEffective: settled.effective,
  };
}
