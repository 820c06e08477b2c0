import type { Report } from '@yellow-thread/contract';
import {
  baseWords,
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
  const beside = estimatedColumns.map(() => '');
  return {
    kind: 'table',
    heads: [
      ...(nested ? [['', ...columns.map(({ under }) => under ?? ''), ...beside]] : []),
      [
        '',
        ...columns.map(({ label, letter }) => (letter ? `${label} (${letter})` : label)),
        ...estimatedColumns.map((column) => blocksTexts.estimated(columnName(column))),
      ],
      [
        baseHead[counts],
        ...columns.map((column) => columnBase(counts, column)),
        ...estimatedColumns.map(({ answered }) => blocksTexts.allWhoAnswered(answered)),
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
  const percent = `${(100 * share).toFixed(decimalsOf(decimals, fittingDecimals(base.people)))}%`;
  const [count, sum] =
    of === 'mentions' ? [cell.mentions, cell.weightedMentions] : [cell.people, cell.weighted];
  const counted = weighted ? blocksTexts.weightedCount(sum, count) : String(count);
  const marks = [...exceeds, ...(rest ? [rest === 'higher' ? '+' : '−'] : [])].join(' ');
  const told = `${percent} (${counted})${marks && ` ${marks}`}`;
  return undecided > 0 ? blocksTexts.leastUndecided(told, undecided) : told;
}

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
  const { base, test, against, level, columns, overlapping, estimatedFrom, counts } = report;
  const isEstimated = counts === 'estimated';
  const sentences = [
    countsSentence(report, String),
    isEstimated
      ? blocksTexts.bracketsInterval
      : blocksTexts.percentNumberBrackets(baseWords[base], base, report.weighted),
  ];
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
    runs: [{ text: `${name}: `, bold: true }, { text: value }],
  }));
