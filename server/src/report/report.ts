import type {
  BaseKind,
  CheckSide,
  CountingRule,
  Report,
  ReportQuery,
  ReportRow,
} from '@yellow-thread/contract';
import {
  countOf,
  countOfBoth,
  fullBitset,
  isEmpty,
  subtract,
  type Bitset,
} from '@yellow-thread/core/groups';
import {
  countCrosstab,
  estimateOf,
  measureBase,
  type CrosstabCell,
} from '@yellow-thread/core/report';
import { shareApplying } from '@yellow-thread/core/review';
import { type EstimatedShare } from '@yellow-thread/core/statistics';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, type QuestionRow } from '../database/index.js';
import { readPeople, setOf, type People } from '../groups/index.js';

import { placeColumns, type PlacedColumn } from './columns.js';
import { compareColumns, FEWEST_COMPARED } from './compareColumns.js';
import { baseFor, chooseRule } from './chooseRule.js';
import { estimateShares, hasEstimates, TOO_FEW_SAMPLED, type Estimates } from './estimates.js';
import { inOrder, readTableRows, rowOf, type TableRow } from './tableRows.js';
import { sumOrigins } from './tableMaterial.js';

/**
 * A table of codes and themes by groups, questions or background.
 *
 * @param within ids of the respondents whom it is restricted to; null for everybody
 * @throws Problem not_found, too_many_columns, no_such_difference
 */
export async function makeReport(
  em: EntityManager,
  {
    studyId,
    question,
    query,
    within,
  }: {
    studyId: number;
    question: QuestionRow;
    query: ReportQuery;
    within: readonly number[] | null;
  },
): Promise<Report> {
  const people = await readPeople(em, studyId);
  const restriction = asSet(people, within);
  const [columns, { codeIds, lines }] = await Promise.all([
    placeColumns(em, { studyId, people, question, query, within: restriction }),
    readTableRows(em, studyId, query),
  ]);
  const level = Number(query.level) / 100;
  const weights = query.weighted ? people.weights : null;
  const materials = [...new Set(columns.map((column) => column.material))];
  const parts = [
    ...new Map(
      materials.flatMap((one) => one.parts.map((part) => [part.questionId, part])),
    ).values(),
  ];
  const rule = await chooseRule(em, people, { query, columns, codeIds, parts, restriction });
  const base = baseFor(rule, query.base);
  const wantsEstimates = rule.counts === 'estimated' || query.estimated;
  const estimates = wantsEstimates
    ? estimateShares(rule.sources, { lines, columns, weights, level })
    : null;
  const counted = countLines({
    lines,
    codeIds,
    columns,
    weights,
    options: { base, level, rule: rule.counts },
  });
  const cells =
    rule.counts === 'estimated' && estimates
      ? counted.map((row, l) => row.map((cell, c) => estimatedCell(cell, estimates.cells[l]![c]!)))
      : counted;
  const compared = compareColumns(columns, { ...query, base, rule: rule.counts }, weights !== null);
  const table = lines.flatMap((line, l) => {
    const own = cells[l]!;
    const estimated = estimates?.cells[l];
    const isNobodys = own.every((cell) => cell.people === 0);
    if (
      isNobodys &&
      (query.empty === 'hidden' || !line.isInUse(parts.map((part) => part.questionId)))
    )
      return [];
    const tested = compared.testRow(own, estimated ?? null);
    const made: ReportRow = {
      kind: line.kind,
      id: line.id,
      parentId: line.parentId,
      name: line.name,
      isAtLeast: own.some((cell) => cell.undecided > 0),
      ...tested,
      ...(estimated && {
        cells: tested.cells.map((cell, c) => ({ ...cell, estimated: toldEstimate(estimated[c]!) })),
      }),
    };
    return [{ line, made, size: sizeOf(made, query.order) }];
  });
  const questionIds = parts.map((part) => part.questionId);
  const everybody = fullBitset(people.ids.length);
  return {
    counts: rule.counts,
    rules: rule.rules,
    isMixed: false,
    isFinished: rule.isFinished,
    sample: {
      drawn: sumOf(parts, (part) => part.drawn),
      read: sumOf(parts, (part) => countOf(part.sampled)),
      isAllSettled: parts.every((part) => isEmpty(subtract(part.settled, part.sampled))),
    },
    assisted: sumOf(parts, (part) => countOfBoth(part.assisted, restriction ?? everybody)),
    byModel: sumOf(parts, (part) => countOfBoth(part.byModel, restriction ?? everybody)),
    weighted: weights !== null,
    base,
    test: query.test,
    level,
    against: query.against,
    decimals: query.decimals,
    columns: columns.map((column, c) => ({
      ...describeColumn(column, weights, rule.counts),
      ...(rule.counts === 'estimated' && { counted: estimates?.read[c] ?? 0 }),
      letter: compared.letters[c] ?? null,
    })),
    rows: inOrder(table, query.order).map(({ made }) => made),
    overlapping: compared.overlapping,
    origins: sumOrigins(materials.map((one) => one.origins(rule.counts))),
    checked: await readChecked(em, questionIds),
    closed: await readClosed(em, questionIds),
    estimatedFrom: estimates?.from ?? [],
    notEstimated: rule.insteadOf ?? (wantsEstimates ? notEstimated(rule.why, estimates) : null),
  };
}

const sumOf = <One>(all: readonly One[], count: (one: One) => number): number =>
  all.reduce((sum, one) => sum + count(one), 0);

function notEstimated(why: string | null, estimates: Estimates | null): string | null {
  if (why) return why;
  return estimates && !hasEstimates(estimates) ? TOO_FEW_SAMPLED : null;
}

/** A cell of an estimated table: the share of all who answered; its people are those of the sample who mention it. */
function estimatedCell(cell: CrosstabCell, estimated: EstimatedShare | null): CrosstabCell {
  if (!estimated) return { ...cell, share: null, interval: null };
  const { value, interval } = estimateOf(estimated);
  return { ...cell, share: value, interval };
}

/** JSON has no number for what is without end. */
const toldEstimate = (estimated: EstimatedShare | null) =>
  estimated && {
    ...estimated,
    effective: Number.isFinite(estimated.effective) ? estimated.effective : null,
  };

/** Respondents by id as a set; null for everybody. */
export const asSet = (people: People, ids: readonly number[] | null): Bitset | null =>
  ids && setOf(people, ids);

function sizeOf({ cells, difference }: ReportRow, order: ReportQuery['order']): number {
  if (order !== 'difference') return cells[0]?.share ?? 0;
  if (difference) return Math.abs(difference.value);
  const shares = cells
    .slice(1)
    .flatMap(({ share, base }) => (share === null || base.people < FEWEST_COMPARED ? [] : [share]));
  return shares.length < 2 ? 0 : Math.max(...shares) - Math.min(...shares);
}

/** What spot checks found of each code, before it was corrected. */
async function readChecked(
  em: EntityManager,
  questionIds: readonly number[],
): Promise<Report['checked']> {
  const found = await rows<{ code: string; side: CheckSide; read: number; applies: number }>(
    em,
    `select c.name as code, k.side, count(*)::int as read,
       (count(*) filter (where a.verdict = 'applies'))::int as applies
     from spot_check_answer a join spot_check k on k.id = a.check_id join code c on c.id = k.code_id
     where k.question_id = any(:questionIds::int[]) and a.verdict in ('applies', 'not')
     group by c.id, c.name, c.position, k.side order by c.position, c.id, k.side`,
    { questionIds },
  );
  return found.map((one) => ({
    ...one,
    interval: shareApplying(one.applies, one.read - one.applies)!.interval,
  }));
}

/** Codes of which it was said that whatever is left does not mention them. */
const readClosed = (em: EntityManager, questionIds: readonly number[]): Promise<Report['closed']> =>
  rows(
    em,
    `select c.name as code, k.how, k.expected from code_closing k join code c on c.id = k.code_id
     where k.question_id = any(:questionIds::int[]) order by c.position, c.id, k.question_id`,
    { questionIds },
  );

/** Counts every line in every column; columns about the same material are counted together. */
function countLines({
  lines,
  codeIds,
  columns,
  weights,
  options: { base, level, rule },
}: {
  lines: TableRow[];
  codeIds: readonly string[];
  columns: PlacedColumn[];
  weights: Float64Array | null;
  options: { base: BaseKind; level: number; rule: CountingRule };
}): CrosstabCell[][] {
  const cells = lines.map(() => new Array<CrosstabCell>(columns.length));
  for (const material of new Set(columns.map((column) => column.material))) {
    const places = columns.flatMap((column, c) => (column.material === material ? [c] : []));
    countCrosstab({
      rows: lines.map((line) => rowOf(material, line, rule)),
      columns: places.map((c) => columns[c]!),
      asked: material.asked,
      answered: material.answered,
      weights,
      base,
      level,
      ...(base === 'mentions' && { codes: codeIds.map((id) => material.rowOf(id, rule)) }),
    }).forEach((counted, l) =>
      counted.forEach((cell, place) => {
        cells[l]![places[place]!] = cell;
      }),
    );
  }
  return cells;
}

function describeColumn(
  { key, label, under, rule, members, material, comparedIn }: PlacedColumn,
  weights: Float64Array | null,
  counts: CountingRule,
) {
  const counted = measureBase(material.countedBy(counts), members, weights);
  return {
    key,
    label,
    under,
    rule,
    asked: countOfBoth(material.asked, members),
    answered: countOfBoth(material.answered, members),
    settled: countOfBoth(material.countedBy('settled'), members),
    counted: counted.people,
    countedWeighted: counted.weighted,
    countedEffective: counted.effective,
    isCompared: comparedIn !== null,
  };
}
