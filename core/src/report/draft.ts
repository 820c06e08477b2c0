import { inWords, isOwnReading } from '../agreement/index.js';
import {
  figureText,
  type FigureCell,
  type FigureFormat,
  type FigureRef,
  type FigureTable,
} from './figures.js';
import { columnName } from './words.js';

/** A piece of a write-up as its editor keeps it. */
export interface DraftNode {
  type: string;
  attrs?: Record<string, string | number | boolean | null>;
  content?: DraftNode[];
  text?: string;
  marks?: { type: string }[];
}

export interface DraftQuote {
  codeId: string;
  text: string;
  /** The respondent's chosen background: "Tye, 35–44"; blank for none. */
  who: string;
}

/** A table of the write-up with what is to be said of it. */
export interface DraftTable {
  id: string;
  label: string;
  wording: string;
  /** What stands across: "Home"; null for the total alone. */
  across: string | null;
  /** Of whom the percentages are, in words: "people with a settled answer". */
  base: string;
  /** Level of intervals and tests, 0 to 1. */
  level: number;
  /** The test of differences in words; null where nothing is tested. */
  test: string | null;
  weighted: boolean;
  letters: readonly (string | null)[];
  table: FigureTable;
  origins: Record<'hand' | 'accepted' | 'bulk' | 'import' | 'words' | 'waiting', number>;
  checked: { read: number; applies: number; interval: readonly [number, number] } | null;
  quotes: readonly DraftQuote[];
}

/** A second reading of settled answers, done by somebody who did not see how they were coded. */
export interface DraftAgreement {
  /** The question. */
  label: string;
  reader: string;
  firstCoders: readonly string[];
  /** How many settled answers its own were drawn from. */
  drawnFrom: number;
  /** To how many of its answers both gave exactly the same codes. */
  sameSets: { count: number; n: number };
  kappa: number | null;
  interval: readonly [number, number] | null;
  alphaOfSets: number | null;
  /** Names of codes on which the two agree too little to rest anything on. */
  low: readonly string[];
}

export interface DraftInput {
  study: string;
  purpose: string;
  /** How many people coded. */
  coders: number;
  agreement: readonly DraftAgreement[];
  tables: readonly DraftTable[];
  format: FigureFormat;
}

type Row = FigureTable['rows'][number];

const TOP = 3;
const MOST_PARTS = 5;
const MOST_DIFFERENCES = 4;
const MOST_QUOTES = 3;
const LOW_BASE = 30;

/**
 * A draft of the findings by fixed rules, no more certain than the figures are: the themes mentioned most with their
 * bases and intervals, what each is made of, differences beyond chance with the test named, quotes, method and limits.
 * Every figure in it knows which number it is.
 */
export function makeDraft(input: DraftInput): DraftNode {
  return {
    type: 'doc',
    content: [
      heading(1, input.study),
      ...(input.purpose ? [paragraph(text(input.purpose))] : []),
      ...input.tables.flatMap((table) => findings(table, input.format)),
      heading(2, 'Method'),
      ...method(input),
      heading(2, 'Limits'),
      ...limits(input),
    ],
  };
}

const text = (words: string): DraftNode => ({ type: 'text', text: words });
const bold = (words: string): DraftNode => ({ ...text(words), marks: [{ type: 'bold' }] });
const paragraph = (...content: DraftNode[]): DraftNode => ({ type: 'paragraph', content });
const heading = (level: number, words: string): DraftNode => ({
  type: 'heading',
  attrs: { level },
  content: [text(words)],
});
const listOf = (sentences: string[]): DraftNode => ({
  type: 'bulletList',
  content: sentences.map((one) => ({ type: 'listItem', content: [paragraph(text(one))] })),
});

/** Themes and bundles, or codes where there are none, the most mentioned first. */
function headRows({ rows }: FigureTable): Row[] {
  const heads = rows.filter(({ kind }) => kind !== 'code');
  const known = new Set(heads.map(({ id }) => id));
  const byThemselves = rows.filter(
    (row) => row.kind !== 'code' || row.parentId === null || !known.has(row.parentId),
  );
  return byShare(byThemselves);
}

const byShare = (rows: readonly Row[]) =>
  rows.toSorted((x, y) => (y.cells[0]?.share ?? 0) - (x.cells[0]?.share ?? 0));

function findings(of: DraftTable, format: FigureFormat): DraftNode[] {
  const { table, label, wording } = of;
  const [total] = table.columns;
  const blocks = [heading(2, label), paragraph(bold(wording))];
  if (!total) return blocks;
  const figure = (row: Row, what: FigureRef['what'], column = total.key): DraftNode => {
    const ref: FigureRef = { table: of.id, row: row.id, column, what };
    return {
      type: 'figure',
      attrs: { ...ref, shown: figureText(table, ref, format) ?? '–' },
    };
  };
  const { count } = format;
  blocks.push(
    paragraph(
      text(
        `${count(total.asked)} people were asked and ${count(total.answered)} answered; the answers of ${count(total.settled)} are settled.`,
      ),
    ),
  );
  const top = headRows(table)
    .filter((row) => (row.cells[0]?.people ?? 0) > 0)
    .slice(0, TOP);
  if (top.length === 0) return [...blocks, paragraph(text('Nothing is counted yet.'))];
  for (const row of top) {
    const [cell] = row.cells;
    const parts = byShare(table.rows.filter((one) => one.parentId === row.id)).filter(
      (one) => (one.cells[0]?.people ?? 0) > 0,
    );
    blocks.push(
      heading(3, row.name),
      paragraph(
        ...[bold(row.name), text(' is mentioned by '), figure(row, 'share')],
        ...[text(` of ${of.base} (`), figure(row, 'people'), text(' of '), figure(row, 'base')],
        ...(cell?.interval
          ? [text(`; ${Math.round(100 * of.level)}% interval `), figure(row, 'interval')]
          : []),
        text(
          `)${(cell?.base.people ?? 0) < LOW_BASE ? ', which on so few people can be far off' : ''}.`,
        ),
        ...madeOf(parts, figure),
      ),
      ...differences(of, row, figure),
      ...quotes(of, [row, ...parts]),
    );
  }
  blocks.push(...otherDifferences(of, top, figure));
  return [...blocks, { type: 'tableSlot', attrs: { table: of.id } }];
}

type Figure = (row: Row, what: FigureRef['what'], column?: string) => DraftNode;

function madeOf(parts: Row[], figure: Figure): DraftNode[] {
  if (parts.length < 2) return [];
  const named = parts.slice(0, MOST_PARTS);
  const more = parts.length - named.length;
  return [
    text(' It is made of '),
    ...named.flatMap((row, i) => [
      text(`${i === 0 ? '' : i === named.length - 1 && more === 0 ? ' and ' : ', '}${row.name} (`),
      figure(row, 'share'),
      text(')'),
    ]),
    text(more > 0 ? ` and ${more} more.` : '.'),
  ];
}

/** Differences in other rows than those that were spoken of; or that there are none in the whole table. */
function otherDifferences(of: DraftTable, top: readonly Row[], figure: Figure): DraftNode[] {
  if (!of.test) return [];
  const others = of.table.rows
    .filter((row) => !top.includes(row))
    .map((row) => ({ row, said: differencesIn(of, row, figure) }))
    .filter(({ said }) => said.length > 0);
  if (others.length === 0)
    return top.some((row) => differencesIn(of, row, figure).length > 0)
      ? []
      : [
          paragraph(
            text(
              `Between the columns of ${of.across ?? 'this table'} nothing differs beyond chance (${of.test}).`,
            ),
          ),
        ];
  return [
    paragraph(
      text('Beyond chance differ besides: '),
      ...others
        .slice(0, MOST_DIFFERENCES)
        .flatMap(({ row, said }) => [bold(row.name), text(', '), ...said.flat()]),
      text(
        others.length > MOST_DIFFERENCES
          ? `(and ${others.length - MOST_DIFFERENCES} more; ${of.test}.)`
          : `(${of.test}.)`,
      ),
    ),
  ];
}

/** What is beyond chance in a row, one sentence a column. */
function differencesIn(of: DraftTable, row: Row, figure: Figure): DraftNode[][] {
  if (!of.test) return [];
  const { columns } = of.table;
  const nameOf = (c: number) => columnName(columns[c]!);
  return row.cells.flatMap((cell: FigureCell, c): DraftNode[][] => {
    const { key } = columns[c]!;
    if (cell.rest)
      return [
        [
          text(`${nameOf(c)}: `),
          figure(row, 'share', key),
          text(`, ${cell.rest} than among everyone else. `),
        ],
      ];
    if (cell.exceeds.length === 0) return [];
    const lower = cell.exceeds.map((letter) => of.letters.indexOf(letter)).filter((at) => at >= 0);
    return [
      [
        text(`${nameOf(c)}: `),
        figure(row, 'share', key),
        text(', more often than '),
        ...lower.flatMap((at, i) => [
          text(`${i === 0 ? '' : ', '}${nameOf(at)} (`),
          figure(row, 'share', columns[at]!.key),
          text(')'),
        ]),
        text('. '),
      ],
    ];
  });
}

function differences(of: DraftTable, row: Row, figure: Figure): DraftNode[] {
  const said = differencesIn(of, row, figure);
  if (said.length === 0) return [];
  return [
    paragraph(
      text('Beyond chance differ: '),
      ...said.slice(0, MOST_DIFFERENCES).flat(),
      text(`(${of.test}.)`),
    ),
  ];
}

function quotes({ quotes: all }: DraftTable, rows: readonly Row[]): DraftNode[] {
  const codes = new Set(rows.map(({ id }) => id));
  return all
    .filter(({ codeId }) => codes.has(codeId))
    .slice(0, MOST_QUOTES)
    .map(({ text: words, who }) => ({
      type: 'blockquote',
      content: [paragraph(text(`“${words}”${who && ` (${who})`}`))],
    }));
}

const plural = (count: string, one: string, many = `${one}s`) =>
  `${count} ${count === '1' ? one : many}`;

function agreed(one: DraftAgreement, { count, percent }: FigureFormat): string {
  const { label, reader, drawnFrom, sameSets, kappa, interval, alphaOfSets } = one;
  const ends = interval?.map((end) => Math.min(1, Math.max(-1, end)).toFixed(2)).join(' to ');
  const coefficients = [
    ...(kappa === null
      ? []
      : [
          `Cohen’s kappa over all codes is ${kappa.toFixed(2)}${ends ? ` (95% interval ${ends})` : ''}`,
        ]),
    ...(alphaOfSets === null
      ? []
      : [`Krippendorff’s alpha of the sets of codes (MASI distance) is ${alphaOfSets.toFixed(2)}`]),
  ];
  return [
    `${label}: ${count(sameSets.n)} of ${count(drawnFrom)} settled answers, drawn at random, were coded again by ${isOwnReading(one) ? 'the same person' : reader} without the first codes in view;`,
    `${count(sameSets.count)} (${percent(sameSets.count / sameSets.n, sameSets.n)}) got exactly the same codes both times${coefficients.length > 0 ? `; ${inWords(coefficients)}` : ''}.`,
  ].join(' ');
}

function method({ tables, coders, agreement, format }: DraftInput): DraftNode[] {
  const { count } = format;
  const sum = (origin: keyof DraftTable['origins']) =>
    tables.reduce((all, { origins }) => all + origins[origin], 0);
  const checks = tables.flatMap(({ checked }) => (checked ? [checked] : []));
  const sentences = [
    `${plural(count(coders), 'person', 'people')} coded. Counted are ${plural(count(sum('hand')), 'mention')} coded by hand, ${plural(count(sum('accepted')), 'suggestion')} of a trained model that ${sum('accepted') === 1 ? 'was' : 'were'} read and accepted one by one, and ${count(sum('bulk'))} accepted in bulk.`,
    ...(sum('import') > 0 ? [`${count(sum('import'))} came with the sheet.`] : []),
    ...(sum('words') > 0 ? [`${count(sum('words'))} were coded by words looked for.`] : []),
    ...checks.map(
      ({ read, applies, interval }) =>
        `Of what was accepted in bulk, ${plural(count(read), 'answer')} drawn at random ${read === 1 ? 'was' : 'were'} read: ${count(applies)} were right (95% interval of the share ${interval.map((end) => end.toFixed(2)).join(' to ')}).`,
    ),
    ...agreement.map((one) => agreed(one, format)),
    'A person counts once in a code and once in a theme, however often they mention it.',
    ...new Set(
      tables.map(
        ({ base, weighted }) =>
          `Percentages are of ${base}${weighted ? '; they are weighted, numbers of people are not' : ''}.`,
      ),
    ),
    ...new Set(tables.flatMap(({ test }) => (test ? [`Differences are tested: ${test}.`] : []))),
  ];
  return [paragraph(text(sentences.join(' ')))];
}

function limits({ tables, coders, agreement, format: { count } }: DraftInput): DraftNode[] {
  const said: string[] = [];
  for (const { label, table, origins, checked } of tables) {
    const [total, ...others] = table.columns;
    if (!total) continue;
    if (total.settled < total.answered)
      said.push(
        `${label}: ${count(total.answered - total.settled)} of ${count(total.answered)} answers are not settled. Unless those that are were drawn at random, the rest may differ from them.`,
      );
    const few = others.filter(({ settled }) => settled < LOW_BASE).map((column) => column.label);
    if (few.length > 0)
      said.push(`${label}: fewer than ${LOW_BASE} settled answers in ${few.join(', ')}.`);
    if (origins.bulk > 0 && !checked)
      said.push(
        `${label}: what was accepted in bulk has not been spot-checked, so it is not known how much of it is right.`,
      );
    if (origins.waiting > 0)
      said.push(
        `${label}: ${plural(count(origins.waiting), 'mention')} on open answers not counted yet.`,
      );
  }
  for (const { label, low } of agreement)
    if (low.length > 0)
      said.push(
        `${label}: the two readings agree too little on ${inWords(low)} to rest a finding on ${low.length === 1 ? 'it' : 'them'} alone.`,
      );
  if (agreement.length === 0)
    said.push(
      coders > 1
        ? 'How far the coders agree has not been measured here.'
        : 'One person coded, so that there is no second reading to compare with.',
    );
  else if (agreement.every(isOwnReading))
    said.push(
      'The second reading is by the person who coded first: it shows how steady they are, not how far two people agree.',
    );
  return [listOf(said)];
}
