import type { Report } from '@yellow-thread/contract';
import {
  baseWords,
  columnName,
  correctionWords,
  decimalsOf,
  estimateOf,
  fittingDecimals,
} from '@yellow-thread/core/report';
import { estimatesInWords, type Fact } from './facts.js';
import { hasEstimates } from './grid.js';

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

/** The table as people read it: in each cell the percentage, the number of people behind it, and its letters. */
export function reportTable(report: Report): Block {
  const { columns, rows } = report;
  const nested = columns.some(({ under }) => under !== null);
  const estimated = hasEstimates(report);
  const estimatedColumns = columns.filter((_, c) => estimated[c]);
  const beside = estimatedColumns.map(() => '');
  return {
    kind: 'table',
    heads: [
      ...(nested ? [['', ...columns.map(({ under }) => under ?? ''), ...beside]] : []),
      [
        '',
        ...columns.map(({ label, letter }) => (letter ? `${label} (${letter})` : label)),
        ...estimatedColumns.map((column) => `${columnName(column)}, estimated`),
      ],
      [
        'Settled of answered',
        ...columns.map((column) => `${column.settled} of ${column.answered}`),
        ...estimatedColumns.map(({ answered }) => `all ${answered} who answered`),
      ],
      ...(report.weighted
        ? [
            [
              'Effective base',
              ...columns.map((column) => column.settledEffective.toFixed(0)),
              ...beside,
            ],
          ]
        : []),
    ],
    rows: rows.map((row) => ({
      isHead: row.kind !== 'code',
      cells: [
        row.name,
        ...row.cells.map((cell) => cellText(cell, report.decimals)),
        ...row.cells
          .filter((_, c) => estimated[c])
          .map((cell) => estimateText(cell, report.decimals)),
      ],
    })),
    note: noteOn(report),
  };
}

function cellText(
  { share, people, mentions, base, exceeds, rest, interval }: Cell,
  decimals: Report['decimals'],
) {
  if (share === null) return '–';
  const percent = `${(100 * share).toFixed(decimalsOf(decimals, fittingDecimals(base.people)))}%`;
  // what has no interval is a share of mentions
  const count = interval ? people : mentions;
  const marks = [...exceeds, ...(rest ? [rest === 'higher' ? '+' : '−'] : [])].join(' ');
  return `${percent} (${count})${marks && ` ${marks}`}`;
}

function estimateText({ estimated }: Cell, decimals: Report['decimals']) {
  if (!estimated) return '–';
  const share = estimateOf(estimated);
  const [value, low, high] = [share.value, ...share.interval].map((one) =>
    (100 * one).toFixed(decimalsOf(decimals, 0)),
  );
  return `${value}% (${low} to ${high})`;
}

function noteOn(report: Report): string {
  const { base, test, against, level, columns, overlapping, estimatedFrom } = report;
  const sentences = [
    `Percent of ${baseWords[base]}, with the number of ${base === 'mentions' ? 'mentions' : 'people'} in brackets${report.weighted ? '; percentages are weighted, numbers are not' : ''}.`,
  ];
  if (columns.some(({ letter }) => letter !== null))
    sentences.push(
      `A letter names a column whose percentage is lower beyond chance (two-sided, ${Math.round(100 * (1 - level))}%, ${correctionWords[test]}).`,
    );
  if (against === 'rest' && test !== 'off')
    sentences.push(
      `+ and − mark what is higher or lower than among everyone else (two-sided, ${Math.round(100 * (1 - level))}%, ${correctionWords[test]}).`,
    );
  if (overlapping.length > 0)
    sentences.push(
      `Not compared with each other, since they have respondents in common: ${overlapping.map((pair) => pair.join(' and ')).join('; ')}.`,
    );
  for (const from of estimatedFrom) sentences.push(estimatesInWords(from));
  return sentences.join(' ');
}

export const factBlocks = (facts: readonly Fact[]): Block[] =>
  facts.map(([name, value]) => ({
    kind: 'paragraph',
    runs: [{ text: `${name}: `, bold: true }, { text: value }],
  }));
