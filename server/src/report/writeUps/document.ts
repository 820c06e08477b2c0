import type { WriteUp, WriteUpNode } from '@yellow-thread/contract';
import { factBlocks, reportTable, type Block, type Run } from '../files/index.js';

/** A write-up as blocks of a document: what is written, with its tables where they stand, and what they are about. */
export function documentOf({ name, content, counted }: WriteUp): Block[] {
  const placed = new Set<string>();
  const written = (content.body?.content ?? []).flatMap((node) => blocksOf(node, counted, placed));
  // a table that nobody put into the text follows it
  const left = counted.filter(({ id }) => !placed.has(id));
  return [
    ...(written.some((block) => block.kind === 'heading' && block.level === 1)
      ? []
      : [heading(1, name)]),
    ...written,
    ...left.flatMap(tableBlocks),
    ...(counted.length > 0 ? [heading(2, 'About the tables')] : []),
    ...counted.flatMap(({ label, facts }) => [heading(3, label), ...factBlocks(facts)]),
  ];
}

const heading = (level: 1 | 2 | 3, text: string): Block => ({ kind: 'heading', level, text });

const tableBlocks = ({ wording, report }: WriteUp['counted'][number]): Block[] => [
  { kind: 'paragraph', runs: [{ text: wording, bold: true }] },
  reportTable(report),
];

function blocksOf(node: WriteUpNode, counted: WriteUp['counted'], placed: Set<string>): Block[] {
  const inner = () => (node.content ?? []).flatMap((one) => blocksOf(one, counted, placed));
  switch (node.type) {
    case 'heading': {
      const level = Number(node.attrs?.['level'] ?? 2);
      return [heading(level === 1 || level === 2 ? level : 3, textOf(node))];
    }
    case 'paragraph':
      return [{ kind: 'paragraph', runs: runsOf(node) }];
    case 'blockquote':
      return inner().map((block) =>
        block.kind === 'paragraph' ? { kind: 'quote', runs: block.runs } : block,
      );
    case 'bulletList':
    case 'orderedList':
      return (node.content ?? []).flatMap((item) =>
        (item.content ?? []).flatMap((one) =>
          one.type === 'paragraph'
            ? [{ kind: 'item' as const, ordered: node.type === 'orderedList', runs: runsOf(one) }]
            : blocksOf(one, counted, placed),
        ),
      );
    case 'tableSlot': {
      const table = counted.find(({ id }) => id === node.attrs?.['table']);
      if (!table) return [];
      placed.add(table.id);
      return tableBlocks(table);
    }
    default:
      return inner();
  }
}

function runsOf(node: WriteUpNode): Run[] {
  return (node.content ?? []).flatMap((one): Run[] => {
    if (one.type === 'hardBreak') return [{ text: '\n' }];
    const text = one.type === 'figure' ? String(one.attrs?.['shown'] ?? '–') : (one.text ?? '');
    if (text === '') return [];
    const has = (type: string) => (one.marks ?? []).some((mark) => mark.type === type);
    return [{ text, ...(has('bold') && { bold: true }), ...(has('italic') && { italic: true }) }];
  });
}

const textOf = (node: WriteUpNode) =>
  runsOf(node)
    .map(({ text }) => text)
    .join('');
