import type { Report } from '@yellow-thread/contract';
import {
  baseInWords,
  columnName,
  correctionWords,
  countsSentence,
  decimalsOf,
  estimateOf,
  fittingDecimals,
} from '@yellow-thread/core/report';
import { estimatesInWords, type Fact } from './facts.js';
import { hasEstimates } from './grid.js';
import { blocksTexts } from '../../wording/report.js';

export interface Run {
  text: string;
  bold?: boolean;
  italic?: boolean;
}

/** What a document is made of, whichever program it is for. */
export type Block =
  | { kind: 'heading'; level: 1 | 2 | 3; text: string }
  | { kind: 'paragraph'; runs: Run[] }
  | { kind: 'item'; runs: Run[]; ordered: boolean }
  | { kind: 'quote'; runs: Run[] }
  /** A PNG; sizes in pixels as it is shown. */
  | { kind: 'picture'; png: Buffer; alt: string; width: number; height: number }
  | {
      kind: 'table';
      /** Lines of column heads; the first cell of each is the name's. */
      heads: string[][];
      rows: { cells: string[]; isHead: boolean }[];
      note: string;
    };

type Cell = Report['rows'][number]['cells'][number];

/**
 * The table as people read it: in each cell the percentage, the number of people behind it, and its letters; of an
 * estimated table, the share with its interval.
 */
export function reportTable(report: Report): Block {
  const { columns, rows, counts } = report;
  const nested = columns.some(({ under }) => under !== null);
  // where everything is estimated, nothing stands beside it
  const estimated = counts === 'estimated' ? columns.map(() => false) : hasEstimates(report);
  const estimatedColumns = columns.filter((_, c) => estimated[c]);
  const hasDifference = rows.some(({ difference }) => difference);
  const hasWhole = rows.some(({ whole }) => whole);
  const tests = [...(hasDifference ? [''] : []), ...(hasWhole ? [''] : [])];
  const beside = [...estimatedColumns.map(() => ''), ...tests];
  return {
    kind: 'table',
    heads: [
      ...(nested ? [['', ...columns.map(({ under }) => under ?? ''), ...beside]] : []),
      [
        '',
        ...columns.map(({ label, letter }) => (letter ? `${label} (${letter})` : label)),
        ...estimatedColumns.map((column) => blocksTexts.estimated(columnName(column))),
        ...(hasDifference ? [blocksTexts.difference] : []),
        ...(hasWhole ? [blocksTexts.anyDifference] : []),
      ],
      [
        baseHead[counts],
        ...columns.map((column) => columnBase(counts, column)),
        ...estimatedColumns.map(({ answered }) => blocksTexts.allWhoAnswered(answered)),
        ...tests,
      ],
      ...(report.weighted
        ? [
            [
              blocksTexts.effectiveBase,
              ...columns.map((column) => column.countedEffective.toFixed(0)),
              ...beside,
            ],
          ]
        : []),
    ],
    rows: rows.map((row) => ({
      isHead: row.kind !== 'code',
      cells: [
        row.name,
        ...row.cells.map((cell) =>
          counts === 'estimated' ? estimatedText(cell, report.decimals) : cellText(cell, report),
        ),
        ...row.cells
          .filter((_, c) => estimated[c])
          .map((cell) => estimateText(cell, report.decimals)),
        ...(hasDifference ? [differenceText(row)] : []),
        ...(hasWhole ? [wholeText(row)] : []),
      ],
    })),
    note: noteOn(report),
  };
}

/** What stands before the bases of the columns. */
const baseHead: Record<Report['counts'], string> = {
  decided: blocksTexts.answered,
  estimated: blocksTexts.sampleAnswered,
  sample: blocksTexts.sampleAnswered,
  settled: blocksTexts.settledAnswered,
};

const columnBase = (
  counts: Report['counts'],
  { counted, answered }: Report['columns'][number],
): string => (counts === 'decided' ? String(answered) : `${counted} of ${answered}`);

function cellText(cell: Cell, { decimals, base: of, weighted }: Report) {
  const { share, base, exceeds, rest, undecided } = cell;
  if (share === null) return '–';
  const percent = `${(100 * share).toFixed(decimalsOf(decimals, fittingDecimals(base.people)))}%${lowBaseMark(base.people)}`;
  const [count, sum] =
    of === 'mentions' ? [cell.mentions, cell.weightedMentions] : [cell.people, cell.weighted];
  const counted = weighted ? blocksTexts.weightedCount(sum, count) : String(count);
  const marks = [...exceeds, ...(rest ? [rest === 'higher' ? '+' : '−'] : [])].join(' ');
  const told = `${percent} (${counted})${marks && ` ${marks}`}`;
  return undecided > 0 ? blocksTexts.leastUndecided(told, undecided) : told;
}

/** Percentages on few people are easily chance: * and ** mark them. */
const LOW_BASE = { few: 30, veryFew: 10 };
const lowBaseMark = (people: number): string =>
  people < LOW_BASE.veryFew ? '**' : people < LOW_BASE.few ? '*' : '';

type Row = Report['rows'][number];

const points = (value: number): string => `${value > 0 ? '+' : ''}${(100 * value).toFixed(1)}`;
const asP = (p: number): string => (p < 0.001 ? 'p < .001' : `p ${p.toFixed(3).slice(1)}`);

const differenceText = ({ difference }: Row): string =>
  difference
    ? blocksTexts.differenceOf(
        points(difference.value),
        difference.interval.map(points),
        asP(difference.p),
      )
    : '–';

const wholeText = ({ whole }: Row): string =>
  whole
    ? blocksTexts.wholeOf(
        whole.test,
        whole.value.toFixed(1),
        whole.degrees.map((one) => String(Number(one.toFixed(1)))),
        asP(whole.p),
      )
    : blocksTexts.tooFew;

/** A cell of a table that is estimated throughout. */
function estimatedText(cell: Cell, decimals: Report['decimals']) {
  const text = estimateText(cell, decimals);
  return cell.exceeds.length > 0 ? `${text} ${cell.exceeds.join(' ')}` : text;
}

function estimateText({ estimated }: Cell, decimals: Report['decimals']) {
  if (!estimated) return '–';
  const share = estimateOf(estimated);
  const [value, low, high] = [share.value, ...share.interval].map((one) =>
    (100 * one).toFixed(decimalsOf(decimals, 0)),
  );
  return blocksTexts.to(value, low, high);
}

function noteOn(report: Report): string {
  const { base, test, against, level, columns, rows, overlapping, estimatedFrom, counts } = report;
  const isEstimated = counts === 'estimated';
  const sentences = [
    countsSentence(report, String),
    isEstimated
      ? blocksTexts.bracketsInterval
      : blocksTexts.percentNumberBrackets(baseInWords[base], base, report.weighted),
  ];
  const bases = isEstimated
    ? []
    : rows.flatMap(({ cells }) => cells.map((cell) => cell.base.people));
  if (bases.some((people) => people < LOW_BASE.few))
    sentences.push(blocksTexts.lowBases(LOW_BASE.few, LOW_BASE.veryFew));
  if (columns.some(({ letter }) => letter !== null))
    sentences.push(
      blocksTexts.letterNamesColumnWhose(Math.round(100 * (1 - level)), correctionWords[test]),
    );
  if (against === 'rest' && test !== 'off' && !isEstimated)
    sentences.push(
      blocksTexts.markWhatSignificantlyHigher(Math.round(100 * (1 - level)), correctionWords[test]),
    );
  if (overlapping.length > 0)
    sentences.push(
      blocksTexts.comparedEachOtherSince(overlapping.map((pair) => pair.join(' and ')).join('; ')),
    );
  if (!isEstimated) for (const from of estimatedFrom) sentences.push(estimatesInWords(from));
  return sentences.join(' ');
}

export const factBlocks = (facts: readonly Fact[]): Block[] =>
  facts.map(([name, value]) => ({
    kind: 'paragraph',
    runs: [{ text: `${name}: `, bold: true }, { text: String(value) }],
  }));
