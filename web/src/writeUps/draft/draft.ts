import {
  figureText,
  type FigureCell,
  type FigureFormat,
  type FigureRef,
  type FigureTable,
} from '@yellow-thread/core/report';
import { limits, method } from './draftMethod.js';
import { bold, heading, paragraph, text, type DraftNode } from './draftNode.js';
import { keyed } from './redraft.js';
import { LOW_BASE, type DraftInput, type DraftTable } from './draftInput.js';
import { columnName } from '@yellow-thread/core/report';
import { draftTexts } from './texts.js';

type Row = FigureTable['rows'][number];

const TOP = 3;
const MOST_PARTS = 5;
const MOST_DIFFERENCES = 4;
const MOST_QUOTES = 3;

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
      keyed('method head', heading(2, draftTexts.method)),
      ...method(input),
      keyed('limits head', heading(2, draftTexts.limits)),
      ...limits(input),
    ],
  };
}

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
          draftTexts.peopleAskedAnswered(of.counting, count(total.asked), count(total.answered)),
        ),
      ),
    ),
  );
  const top = headRows(table)
    .filter((row) => (row.cells[0]?.share ?? 0) > 0)
    .slice(0, TOP);
  if (top.length === 0)
    return [...blocks, keyed(at('nothing'), paragraph(text(draftTexts.nobodyMentionsCodeYet)))];
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
    ...otherDifferences(of, top, figure).map((block) =>
      keyed(at(draftTexts.otherDifferences), block),
    ),
    keyed(at('table'), { type: 'tableSlot', attrs: { table: of.id } }),
  ];
}

type Figure = (row: Row, what: FigureRef['what'], column?: string) => DraftNode;

/** How often a row is mentioned, with its base: an estimate, a count, or what is known so far. */
function shareOf(of: DraftTable, row: Row, figure: Figure): DraftNode[] {
  const [cell] = row.cells;
  const name = bold(row.name);
  const interval = [text(draftTexts.interval(Math.round(100 * of.level))), figure(row, 'interval')];
  const isFew = (cell?.estimated?.sampled ?? cell?.base.people ?? 0) < LOW_BASE;
  const few = isFew ? draftTexts.whichCanFarOff : '';
  if (of.counts === 'estimated')
    return [
      name,
      text(draftTexts.mentionedEstimated),
      figure(row, 'share'),
      text(draftTexts.of(of.base)),
      ...interval,
      text(`)${few}.`),
    ];
  const counted = [figure(row, 'people'), text(' of '), figure(row, 'base')];
  if (cell && cell.undecided > 0)
    return [
      name,
      text(draftTexts.mentionedLeast),
      figure(row, 'share'),
      text(draftTexts.of(of.base)),
      ...counted,
      text('; for '),
      figure(row, 'undecided'),
      text(draftTexts.decided),
    ];
  // of answers that were not drawn at random an interval would say nothing
  const isSampled = of.counts !== 'settled' || of.isRandom || of.isFinished;
  return [
    name,
    text(draftTexts.mentioned),
    figure(row, 'share'),
    text(draftTexts.of(of.base)),
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
    text(draftTexts.consists),
    ...named.flatMap((row, i) => [
      text(`${i === 0 ? '' : i === named.length - 1 && more === 0 ? ' and ' : ', '}${row.name} (`),
      ...(row.cells[0]!.undecided > 0 ? [text(draftTexts.least)] : []),
      figure(row, 'share'),
      text(')'),
    ]),
    text(more > 0 ? draftTexts.more(more) : '.'),
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
      : [paragraph(text(draftTexts.noRowDiffersSignificantly(of.across, of.test)))];
  const more = others.length - MOST_DIFFERENCES;
  return [
    paragraph(
      text(draftTexts.otherSignificantDifferences),
      ...others
        .slice(0, MOST_DIFFERENCES)
        .flatMap(({ row, said }) => [bold(row.name), text(': '), ...said.flat()]),
      text(more > 0 ? draftTexts.moreRows(more, of.test) : `(${of.test}.)`),
    ),
  ];
}

/** What is significant in a row, one sentence a column. */
function differencesIn(of: DraftTable, row: Row, figure: Figure): DraftNode[][] {
  if (!of.test) return [];
  const { columns } = of.table;
  const nameOf = (c: number) => columnName(columns[c]!);
  const among = (c: number) => [text(draftTexts.mentionedSignificantly(nameOf(c)))];
  return row.cells.flatMap((cell: FigureCell, c): DraftNode[][] => {
    const { key } = columns[c]!;
    if (cell.rest)
      return [
        [
          ...among(c),
          text(draftTexts.often(cell.rest)),
          figure(row, 'share', key),
          text(draftTexts.everyoneElse),
        ],
      ];
    const lower = cell.exceeds.map((letter) => of.letters.indexOf(letter)).filter((at) => at >= 0);
    if (lower.length === 0) return [];
    return [
      [
        ...among(c),
        text(draftTexts.moreOften),
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
      ...(of.across ? [text(draftTexts.by(of.across))] : []),
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
