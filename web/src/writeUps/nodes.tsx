import type { CountedTable, Picture } from '@yellow-thread/contract';
import { columnName, countsSentence, figureText, type FigureRef } from '@yellow-thread/core/report';
import { Extension, mergeAttributes, Node } from '@tiptap/core';
import { NodeViewWrapper, ReactNodeViewRenderer, type NodeViewProps } from '@tiptap/react';
import { createContext, useContext } from 'react';
import { pictureAddress } from '../data/writeUps.js';
import { asCount, asPercent } from '../lib/numbers.js';
import { figureFormat } from './format.js';
import { nodesTexts } from './texts.js';

/** The tables as they are counted now: what figures in the text are held against. */
export const CountedTables = createContext<readonly CountedTable[]>([]);

const kinds: readonly FigureRef['what'][] = ['share', 'people', 'base', 'interval', 'undecided'];

/** Which number a figure in the text is. */
export function refOf(attrs: Record<string, unknown>): FigureRef {
  const part = (name: string) => (typeof attrs[name] === 'string' ? attrs[name] : '');
  return {
    table: part('table'),
    row: part('row'),
    column: part('column'),
    what: kinds.find((kind) => kind === attrs['what']) ?? 'share',
  };
}

/** What a figure is now; null when its place is gone. */
export const figureNow = (tables: readonly CountedTable[], ref: FigureRef): string | null =>
  figureText(tables.find(({ id }) => id === ref.table)?.report, ref, figureFormat);

/** A number in the text that knows which figure of which table it is. */
export const Figure = Node.create({
  name: 'figure',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({
    table: { default: '' },
    row: { default: '' },
    column: { default: '' },
    what: { default: 'share' },
    shown: { default: '–' },
  }),
  parseHTML: () => [{ tag: 'span[data-figure]' }],
  renderHTML: ({ HTMLAttributes }) => [
    'span',
    mergeAttributes(HTMLAttributes, { 'data-figure': '' }),
    String(HTMLAttributes['shown'] ?? ''),
  ],
  renderText: ({ node }) => String(node.attrs['shown'] ?? ''),
  addNodeView: () => ReactNodeViewRenderer(FigureView),
});

function FigureView({ node, updateAttributes, editor }: NodeViewProps) {
  const now = figureNow(useContext(CountedTables), refOf(node.attrs));
  const shown = String(node.attrs['shown']);
  const isOld = now !== shown;
  if (!isOld || !editor.isEditable)
    return (
      <NodeViewWrapper as="span" className="figures" title={nodesTexts.linkedTable}>
        {shown}
      </NodeViewWrapper>
    );
  return (
    <NodeViewWrapper as="span">
      <button
        type="button"
        disabled={now === null}
        title={now === null ? nodesTexts.rowColumnGone : nodesTexts.nowTake(now)}
        className="figures border-b-2 border-dotted border-brick"
        onClick={() => updateAttributes({ shown: now })}
      >
        {shown}
        <span className="sr-only">
          {now === null ? nodesTexts.noLongerKnown : nodesTexts.now(now)}
        </span>
      </button>
    </NodeViewWrapper>
  );
}

/** What a block was drafted as: a second draft leaves alone what was changed since. */
export const DraftMarks = Extension.create({
  name: 'draftMarks',
  addGlobalAttributes: () => [
    {
      types: ['heading', 'paragraph', 'blockquote', 'bulletList', 'tableSlot'],
      attributes: Object.fromEntries(
        ['draftKey', 'draftPrint'].map((name) => [
          name,
          { default: null, keepOnSplit: false, rendered: false },
        ]),
      ),
    },
  ],
});

/** The place in the text where a table stands. */
export const TableSlot = Node.create({
  name: 'tableSlot',
  group: 'block',
  atom: true,
  addAttributes: () => ({ table: { default: '' } }),
  parseHTML: () => [{ tag: 'div[data-table]' }],
  renderHTML: ({ HTMLAttributes }) => [
    'div',
    mergeAttributes(HTMLAttributes, { 'data-table': '' }),
  ],
  addNodeView: () => ReactNodeViewRenderer(TableSlotView),
});

function TableSlotView({ node, deleteNode, editor }: NodeViewProps) {
  const tables = useContext(CountedTables);
  const table = tables.find(({ id }) => id === node.attrs['table']);
  return (
    <NodeViewWrapper className="my-4" contentEditable={false}>
      {table ? <SmallTable table={table} /> : <p className="text-brick">{nodesTexts.tableGone}</p>}
      {editor.isEditable && (
        <button type="button" className="py-1 text-[13px] text-soft underline" onClick={deleteNode}>
          {nodesTexts.takeTableOutText}
        </button>
      )}
    </NodeViewWrapper>
  );
}

/** Where the pictures of a write-up are fetched, and what they are. */
export const Pictures = createContext<{ study: number; pictures: readonly Picture[] }>({
  study: 0,
  pictures: [],
});

/** The place in the text where a chart stands. */
export const PictureSlot = Node.create({
  name: 'pictureSlot',
  group: 'block',
  atom: true,
  addAttributes: () => ({ picture: { default: '' } }),
  parseHTML: () => [{ tag: 'div[data-picture]' }],
  renderHTML: ({ HTMLAttributes }) => [
    'div',
    mergeAttributes(HTMLAttributes, { 'data-picture': '' }),
  ],
  addNodeView: () => ReactNodeViewRenderer(PictureSlotView),
});

function PictureSlotView({ node, deleteNode, editor }: NodeViewProps) {
  const { study, pictures } = useContext(Pictures);
  const picture = pictures.find(({ id }) => id === node.attrs['picture']);
  return (
    <NodeViewWrapper className="my-4" contentEditable={false}>
      {picture ? (
        <img
          src={pictureAddress(study, picture.id)}
          alt={picture.alt}
          width={picture.width}
          height={picture.height}
          className="h-auto max-w-full border border-rule bg-white"
        />
      ) : (
        <p className="text-brick">{nodesTexts.chartGone}</p>
      )}
      {editor.isEditable && (
        <button type="button" className="py-1 text-[13px] text-soft underline" onClick={deleteNode}>
          {nodesTexts.takeChartOutText}
        </button>
      )}
    </NodeViewWrapper>
  );
}

/** A table as it will stand in the document: percentages with the people behind them. */
export function SmallTable({ table: { report, wording } }: { table: CountedTable }) {
  return (
    <div
      role="region"
      aria-label={`Table: ${wording}`}
      // scrolled by key where it is wider than the page
      tabIndex={0}
      className="overflow-x-auto"
    >
      <p className="font-medium">{wording}</p>
      <p className="text-[13px] text-soft">{countsSentence(report, asCount)}</p>
      <table className="figures mt-1 w-full text-[13px]">
        <thead>
          <tr className="border-b border-soft text-right text-soft">
            <th />
            {report.columns.map((column) => (
              <th key={column.key} className="py-1 pl-3 font-normal">
                {columnName(column)} {column.letter}
                <span className="block text-[12px]">{baseOf(report.counts, column)}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {report.rows.map((row) => (
            <tr
              key={row.id + row.parentId}
              className={row.kind === 'code' ? '' : 'border-t border-rule font-semibold'}
            >
              <th
                scope="row"
                className={`py-0.5 text-left ${row.kind === 'code' ? 'pl-3 font-normal' : ''}`}
              >
                {row.name}
              </th>
              {row.cells.map((cell, c) => (
                <td key={report.columns[c]!.key} className="whitespace-nowrap pl-3 text-right">
                  <SmallCell cell={cell} report={report} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Of how many people a column's figures are. */
function baseOf(
  counts: CountedTable['report']['counts'],
  { counted, answered }: CountedTable['report']['columns'][number],
): string {
  return counts === 'decided' ? asCount(answered) : nodesTexts.of(counted, answered);
}

function SmallCell({
  cell: { share, people, interval, base, undecided, exceeds, rest, estimated },
  report: { counts, decimals },
}: {
  cell: CountedTable['report']['rows'][number]['cells'][number];
  report: CountedTable['report'];
}) {
  if (share === null) return '–';
  const basis = (counts === 'estimated' ? estimated?.sampled : undefined) ?? base.people;
  const percent = (value: number) => asPercent(value, basis, decimals);
  return (
    <>
      {undecided > 0 && nodesTexts.least}
      {percent(share)}{' '}
      <span className="text-soft">
        ({counts === 'estimated' ? interval?.map(percent).join(' to ') : asCount(people)}
        {undecided > 0 && nodesTexts.undecided(undecided)})
      </span>
      {exceeds.length > 0 && <sup className="ml-0.5">{exceeds.join('')}</sup>}
      {rest && <sup className="ml-0.5">{rest === 'higher' ? '+' : '−'}</sup>}
    </>
  );
}
