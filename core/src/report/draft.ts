import { inWords, isOwnReading } from '../agreement/index.js';
import {
  figureText,
  type FigureCell,
  type FigureFormat,
  type FigureRef,
  type FigureTable,
} from './figures.js';
import type { DraftNode } from './draftNode.js';
import { keyed } from './redraft.js';
import type { CountingRule } from './counting.js';
import { columnName } from './words.js';

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
  counts: CountingRule;
  isFinished: boolean;
  /** What it counts, in plain sentences with the base. */
  counting: string;
  /** Whether everything that is settled by hand was drawn at random. */
  isRandom: boolean;
  /** Of whom the percentages are, in words: "people who answered". */
  base: string;
  /** Level of intervals and tests, 0 to 1. */
  level: number;
  /** The test of differences in words; null where nothing is tested. */
  test: string | null;
  weighted: boolean;
  letters: readonly (string | null)[];
  table: FigureTable;
  origins: Record<'hand' | 'accepted' | 'bulk' | 'import' | 'words' | 'notCounted', number>;
  /** How many of the answers were settled with suggestions in view. */
  assisted: number;
  checked: readonly {
    code: string;
    side: 'accepted' | 'refused';
    read: number;
    applies: number;
    interval: readonly [number, number];
  }[];
  /** Codes of which somebody said that the rest does not mention them, and what the models expected of that rest. */
  closed: readonly { code: string; how: 'suggestions' | 'search'; expected: number }[];
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
      keyed('study', heading(1, input.study)),
      ...(input.purpose ? [keyed('purpose', paragraph(text(input.purpose)))] : []),
      ...input.tables.flatMap((table) => findings(table, input.format)),
      keyed('method head', heading(2, 'Method')),
      ...method(input),
      keyed('limits head', heading(2, 'Limits')),
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
  const at = (place: string) => `${of.id} ${place}`;
  const blocks = [
    keyed(at('label'), heading(2, label)),
    keyed(at('wording'), paragraph(bold(wording))),
  ];
  if (!total) return blocks;
  const figure: Figure = (row, what, column = total.key) => {
    const ref: FigureRef = { table: of.id, row: row.id, column, what };
    return {
      type: 'figure',
      attrs: { ...ref, shown: figureText(table, ref, format) ?? '–' },
    };
  };
  const { count } = format;
  blocks.push(
    keyed(
      at('base'),
      paragraph(
        text(
          `${of.counting} ${count(total.asked)} people were asked and ${count(total.answered)} answered.`,
        ),
      ),
    ),
  );
  const top = headRows(table)
    .filter((row) => (row.cells[0]?.share ?? 0) > 0)
    .slice(0, TOP);
  if (top.length === 0)
    return [...blocks, keyed(at('nothing'), paragraph(text('Nobody mentions a code yet.')))];
  for (const row of top) {
    const parts = byShare(table.rows.filter((one) => one.parentId === row.id)).filter(
      (one) => (one.cells[0]?.share ?? 0) > 0,
    );
    const own = (place: string) => at(`${row.id} ${place}`);
    blocks.push(
      keyed(own('name'), heading(3, row.name)),
      keyed(own('share'), paragraph(...shareOf(of, row, figure), ...consistsOf(parts, figure))),
      ...differences(of, row, figure).map((block) => keyed(own('differences'), block)),
      ...quotes(of, [row, ...parts]).map((block, q) => keyed(own(`quote ${q}`), block)),
    );
  }
  return [
    ...blocks,
    ...otherDifferences(of, top, figure).map((block) => keyed(at('other differences'), block)),
    keyed(at('table'), { type: 'tableSlot', attrs: { table: of.id } }),
  ];
}

type Figure = (row: Row, what: FigureRef['what'], column?: string) => DraftNode;

/** How often a row is mentioned, with its base: an estimate, a count, or what is known so far. */
function shareOf(of: DraftTable, row: Row, figure: Figure): DraftNode[] {
  const [cell] = row.cells;
  const name = bold(row.name);
  const interval = [text(`${Math.round(100 * of.level)}% interval `), figure(row, 'interval')];
  const isFew = (cell?.estimated?.sampled ?? cell?.base.people ?? 0) < LOW_BASE;
  const few = isFew ? ', which can be far off on so few people' : '';
  if (of.counts === 'estimated')
    return [
      ...[name, text(' is mentioned by an estimated '), figure(row, 'share')],
      ...[text(` of ${of.base} (`), ...interval, text(`)${few}.`)],
    ];
  const counted = [figure(row, 'people'), text(' of '), figure(row, 'base')];
  if (cell && cell.undecided > 0)
    return [
      ...[name, text(' is mentioned by at least '), figure(row, 'share'), text(` of ${of.base} (`)],
      ...[...counted, text('; for '), figure(row, 'undecided'), text(' it is not decided).')],
    ];
  // of answers that were not drawn at random an interval would say nothing
  const isSampled = of.counts !== 'settled' || of.isRandom || of.isFinished;
  return [
    ...[name, text(' is mentioned by '), figure(row, 'share'), text(` of ${of.base} (`)],
    ...counted,
    ...(cell?.interval && isSampled ? [text('; '), ...interval] : []),
    text(`)${few}.`),
  ];
}

function consistsOf(parts: Row[], figure: Figure): DraftNode[] {
  if (parts.length < 2) return [];
  const named = parts.slice(0, MOST_PARTS);
  const more = parts.length - named.length;
  return [
    text(' It consists of '),
    ...named.flatMap((row, i) => [
      text(`${i === 0 ? '' : i === named.length - 1 && more === 0 ? ' and ' : ', '}${row.name} (`),
      ...(row.cells[0]!.undecided > 0 ? [text('at least ')] : []),
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
      : [paragraph(text(`No row differs significantly by ${of.across ?? 'column'} (${of.test}).`))];
  const more = others.length - MOST_DIFFERENCES;
  return [
    paragraph(
      text('Other significant differences: '),
      ...others
        .slice(0, MOST_DIFFERENCES)
        .flatMap(({ row, said }) => [bold(row.name), text(': '), ...said.flat()]),
      text(more > 0 ? `(and ${more} more rows; ${of.test}.)` : `(${of.test}.)`),
    ),
  ];
}

/** What is significant in a row, one sentence a column. */
function differencesIn(of: DraftTable, row: Row, figure: Figure): DraftNode[][] {
  if (!of.test) return [];
  const { columns } = of.table;
  const nameOf = (c: number) => columnName(columns[c]!);
  const among = (c: number) => [text(`${nameOf(c)} mentioned it significantly `)];
  return row.cells.flatMap((cell: FigureCell, c): DraftNode[][] => {
    const { key } = columns[c]!;
    if (cell.rest)
      return [
        [
          ...among(c),
          text(`${cell.rest === 'higher' ? 'more' : 'less'} often (`),
          figure(row, 'share', key),
          text(') than everyone else. '),
        ],
      ];
    const lower = cell.exceeds.map((letter) => of.letters.indexOf(letter)).filter((at) => at >= 0);
    if (lower.length === 0) return [];
    return [
      [
        ...among(c),
        text('more often ('),
        figure(row, 'share', key),
        text(') than '),
        ...lower.flatMap((at, i) => [
          text(`${i === 0 ? '' : i === lower.length - 1 ? ' and ' : ', '}${nameOf(at)} (`),
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
      ...(of.across ? [text(`By ${of.across}: `)] : []),
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

/** A sentence of a table, which says of which where there are several. */
const saidOf =
  (tables: readonly DraftTable[]) =>
  ({ label }: DraftTable, sentence: string): string =>
    tables.length > 1 ? `${label}: ${sentence}` : sentence;

const listed = new Intl.ListFormat('en');

function method({ tables, coders, agreement, format }: DraftInput): DraftNode[] {
  const { count } = format;
  const of = saidOf(tables);
  const sentences = [
    `${plural(count(coders), 'person', 'people')} coded.`,
    ...new Set(
      tables.flatMap((table) => [
        ...(table.counts === 'estimated' ? [] : [of(table, originSentence(table, count))]),
        ...(table.assisted > 0
          ? [
              of(
                table,
                `${plural(count(table.assisted), 'answer')} ${table.assisted === 1 ? 'was' : 'were'} read with the models’ suggestions in view.`,
              ),
            ]
          : []),
        ...closedSentences(table).map((sentence) => of(table, sentence)),
        ...table.checked.map((check) => of(table, checkSentence(check, count))),
      ]),
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
  return [keyed('method', paragraph(text(sentences.join(' '))))];
}

type Count = FigureFormat['count'];

function originSentence({ origins }: DraftTable, count: Count): string {
  const parts = [
    [origins.hand, 'coded by hand'],
    [origins.accepted, 'suggested by a trained model, read and accepted'],
    [origins.bulk, 'accepted in bulk'],
    [origins.import, 'imported with the sheet'],
    [origins.words, 'coded by a search for words'],
  ] as const;
  const told = parts.filter(([many]) => many > 0);
  const all = parts.reduce((sum, [many]) => sum + many, 0);
  if (told.length === 0) return 'No mention is counted yet.';
  if (told.length === 1)
    return all === 1
      ? `The one mention counted was ${told[0]![1]}.`
      : `All ${count(all)} mentions counted were ${told[0]![1]}.`;
  return `Of the ${count(all)} mentions counted, ${listed.format(told.map(([many, how]) => `${count(many)} ${many === 1 ? 'was' : 'were'} ${how}`))}.`;
}

function closedSentences({ closed }: DraftTable): string[] {
  const by = (how: DraftTable['closed'][number]['how']) => closed.filter((one) => one.how === how);
  const names = (some: DraftTable['closed']) => listed.format(some.map(({ code }) => code));
  const [suggested, searched] = [by('suggestions'), by('search')];
  const expected = suggested.reduce((sum, one) => sum + one.expected, 0);
  return [
    ...(suggested.length > 0
      ? [
          `For ${names(suggested)}, every suggestion was decided, and answers without one count as not mentioning ${suggested.length === 1 ? 'it' : 'them'}; the models expected ${expected.toFixed(1)} mentions among these.`,
        ]
      : []),
    ...(searched.length > 0
      ? [
          `${names(searched)} had no model: answers were searched for ${searched.length === 1 ? 'it' : 'them'}, and the rest counts as not mentioning ${searched.length === 1 ? 'it' : 'them'}.`,
        ]
      : []),
  ];
}

const checkSentence = (
  { code, side, read, applies, interval }: DraftTable['checked'][number],
  count: Count,
): string =>
  `Of what was ${side} in bulk for ${code}, ${plural(count(read), 'answer')} drawn at random ${read === 1 ? 'was' : 'were'} read: the code applied to ${count(applies)} (95% interval of the share ${interval.map((end) => end.toFixed(2)).join(' to ')}), before anything was corrected.`;

function limits({ tables, coders, agreement, format: { count } }: DraftInput): DraftNode[] {
  const said: string[] = [];
  for (const table of tables) {
    const [total, ...others] = table.table.columns;
    if (!total) continue;
    const of = (sentence: string) => said.push(`${table.label}: ${sentence}`);
    if (table.counts === 'settled' && !table.isFinished && total.settled < total.answered)
      of(
        `${count(total.answered - total.settled)} of ${count(total.answered)} answers are not settled.${table.isRandom ? '' : ' Those that are were not drawn at random, so that the rest may differ from them.'}`,
      );
    if (table.table.rows.some(({ cells }) => cells.some(({ undecided }) => undecided > 0)))
      of(
        'figures with “at least” can still rise: it is not decided for everybody whether they mention these.',
      );
    const few = others.filter(({ counted }) => counted < LOW_BASE).map((column) => column.label);
    if (few.length > 0) of(`fewer than ${LOW_BASE} answers in ${listed.format(few)}.`);
    if (table.origins.bulk > 0 && !table.checked.some(({ side }) => side === 'accepted'))
      of(
        'what was accepted in bulk has not been spot-checked, so it is not known how much of it is right.',
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
  return [keyed('limits', listOf(said))];
}
