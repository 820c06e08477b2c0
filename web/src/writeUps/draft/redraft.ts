import type { DraftNode } from './draftNode.js';

/** Which block of a draft a block is, and what it said when it was drafted. */
interface Drafted {
  draftKey: string;
  draftPrint: string;
}

/** A block of a draft that can be told from one that somebody changed. */
export const keyed = (key: string, block: DraftNode): DraftNode => ({
  ...block,
  attrs: { ...block.attrs, draftKey: key, draftPrint: printOf(block) },
});

/** A draft put into a text that people have written in. */
export interface Redrafted {
  doc: DraftNode;
  /** Blocks that were kept since somebody wrote or changed them. */
  kept: number;
  /** Keys of all blocks that were ever drafted: one that is missing was removed. */
  drafted: string[];
}

/**
 * Puts a new draft into a text. Only blocks that are still as they were drafted give way to new ones; what somebody
 * changed stays as it is, what they wrote themselves stays behind the block that it follows, and what they took out
 * does not come back.
 *
 * @param drafted keys of the blocks that were drafted before
 */
export function redraft(
  body: DraftNode | null,
  fresh: DraftNode,
  drafted: readonly string[],
): Redrafted {
  const old = body?.content ?? [];
  const new_ = fresh.content ?? [];
  const freshKeys = new Set(new_.map((block) => draftedAs(block)?.draftKey));
  const takenOut = new Set(drafted);
  const changed = new Map<string, DraftNode>();
  /** What somebody wrote, by the key of the drafted block that it follows; '' at the beginning. */
  const written = new Map<string, DraftNode[]>();
  let after = '';
  let kept = 0;
  const write = (block: DraftNode) => {
    written.set(after, [...(written.get(after) ?? []), block]);
    kept += 1;
  };
  for (const block of old) {
    const as = draftedAs(block);
    if (!as) {
      if (!isBlank(block)) write(block);
      continue;
    }
    takenOut.delete(as.draftKey);
    const isChanged = as.draftPrint !== printOf(block);
    // of a block that was split in two, the second is of somebody's own
    if (isChanged && (changed.has(as.draftKey) || !freshKeys.has(as.draftKey))) {
      write(block);
      continue;
    }
    if (freshKeys.has(as.draftKey)) after = as.draftKey;
    if (!isChanged) continue;
    changed.set(as.draftKey, block);
    kept += 1;
  }
  const content = [...(written.get('') ?? [])];
  for (const block of new_) {
    const { draftKey } = draftedAs(block)!;
    if (!takenOut.has(draftKey)) content.push(changed.get(draftKey) ?? block);
    content.push(...(written.get(draftKey) ?? []));
  }
  return {
    doc: { ...fresh, content },
    kept,
    drafted: [...new Set([...drafted, ...new_.map((block) => draftedAs(block)!.draftKey)])],
  };
}

function draftedAs({ attrs }: DraftNode): Drafted | null {
  const { draftKey, draftPrint } = attrs ?? {};
  return typeof draftKey === 'string' && draftKey !== '' && typeof draftPrint === 'string'
    ? { draftKey, draftPrint }
    : null;
}

const isBlank = ({ type, content = [] }: DraftNode): boolean =>
  type === 'paragraph' && content.length === 0;

/** A print of what a block says, whatever its figures are now. */
const printOf = (block: DraftNode): string => fnv1a(said(block));

function said(block: DraftNode): string {
  const { type, attrs, content = [], text } = block;
  const own =
    type === 'figure'
      ? `{${['table', 'row', 'column', 'what'].map((name) => attrs?.[name]).join('|')}}`
      : (text ?? '');
  // an editor makes one text of those beside each other that look alike
  const goesOn = (i: number) =>
    i > 0 &&
    content[i]!.type === 'text' &&
    content[i - 1]!.type === 'text' &&
    marksOf(content[i]!) === marksOf(content[i - 1]!);
  const inner = content.map((one, i) => (goesOn(i) ? (one.text ?? '') : said(one)));
  return `<${type} ${marksOf(block)}>${own}${inner.join('')}`;
}

const marksOf = ({ marks = [] }: DraftNode): string =>
  marks
    .map(({ type }) => type)
    .sort()
    .join(',');

/** Fowler–Noll–Vo, 64 bits, over UTF-16 units. @see Fowler, Noll & Vo (1991), IETF draft-eastlake-fnv */
function fnv1a(text: string): string {
  let hash = 0xcbf29ce484222325n;
  for (let i = 0; i < text.length; i++)
    hash = ((hash ^ BigInt(text.charCodeAt(i))) * 0x100000001b3n) & 0xffffffffffffffffn;
  return hash.toString(16);
}
