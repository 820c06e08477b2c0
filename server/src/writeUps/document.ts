import type { WriteUp, WriteUpNode } from '@yellow-thread/contract';
import { factBlocks, reportTable, type Block, type Run } from '../report/index.js';
import { documentTexts } from '../wording/report.js';

/** What stands in a text: tables and charts, and which of them were met with so far. */
interface Placed {
  table: (id: unknown) => Block[];
  picture: (id: unknown) => Block[];
}

/**
 * A write-up as blocks of a document: what is written, with its tables and charts where they stand, and what the
 * tables are about.
 *
 * @param pngs its pictures by their ids
 */
export function documentOf(
  { name, content, counted }: WriteUp,
  pngs: ReadonlyMap<string, Buffer>,
): Block[] {
  const met = new Set<string>();
  const tableAt = (id: unknown) => counted.find((table) => table.id === id);
  const pictureAt = (id: unknown) => content.pictures.find((picture) => picture.id === id);
  const placed: Placed = {
    table(id) {
      const table = tableAt(id);
      if (table) met.add(table.id);
      return table ? tableBlocks(table) : [];
    },
    picture(id) {
      const picture = pictureAt(id);
      const png = picture && pngs.get(picture.id);
      if (!picture || !png) return [];
      met.add(picture.id);
      const { alt, width, height } = picture;
      return [{ kind: 'picture', png, alt, width, height }];
    },
  };
  const written = (content.body?.content ?? []).flatMap((node) => blocksOf(node, placed));
  // what nobody put into the text follows it
  const left = [
    ...counted.filter(({ id }) => !met.has(id)).flatMap(tableBlocks),
    ...content.pictures.filter(({ id }) => !met.has(id)).flatMap(({ id }) => placed.picture(id)),
  ];
  return [
    ...(written.some((block) => block.kind === 'heading' && block.level === 1)
      ? []
      : [heading(1, name)]),
    ...written,
    ...left,
    ...(counted.length > 0 ? [heading(2, documentTexts.aboutTables)] : []),
    ...counted.flatMap(({ label, facts }) => [heading(3, label), ...factBlocks(facts)]),
  ];
}

const heading = (level: 1 | 2 | 3, text: string): Block => ({ kind: 'heading', level, text });

const tableBlocks = ({ wording, report }: WriteUp['counted'][number]): Block[] => [
  { kind: 'paragraph', runs: [{ text: wording, bold: true }] },
  reportTable(report),
];

function blocksOf(node: WriteUpNode, placed: Placed): Block[] {
  const inner = () => (node.content ?? []).flatMap((one) => blocksOf(one, placed));
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
            : blocksOf(one, placed),
        ),
      );
    case 'tableSlot':
      return placed.table(node.attrs?.['table']);
    case 'pictureSlot':
      return placed.picture(node.attrs?.['picture']);
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
