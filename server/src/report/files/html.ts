import { escapeUTF8 } from 'entities';
import type { Block, Run } from './blocks.js';
import { isWide, PAGE, partsOf, type TableBlock } from './wideTables.js';

/** Text of one or several lines. */
const escaped = (text: string) => escapeUTF8(text).replaceAll('\n', '<br>');

const runs = (some: readonly Run[]) =>
  some
    .map(({ text, bold, italic }) => {
      const inner = italic ? `<em>${escaped(text)}</em>` : escaped(text);
      return bold ? `<strong>${inner}</strong>` : inner;
    })
    .join('');

function write(block: Block): string {
  switch (block.kind) {
    case 'heading':
      return `<h${block.level}>${escaped(block.text)}</h${block.level}>`;
    case 'paragraph':
      return `<p>${runs(block.runs)}</p>`;
    case 'item':
      return `<li>${runs(block.runs)}</li>`;
    case 'quote':
      return `<blockquote>${runs(block.runs)}</blockquote>`;
    case 'picture':
      return `<p><img src="data:image/png;base64,${block.png.toString('base64')}" alt="${escaped(block.alt)}" width="${block.width}" height="${block.height}"></p>`;
    case 'table':
      return partsOf(block, PAGE.landscape).map(writeTable).join('\n');
  }
}

function writeTable({ heads, rows, note }: TableBlock): string {
  const head = heads
    .map((line) => `<tr>${line.map((cell) => `<th>${escaped(cell)}</th>`).join('')}</tr>`)
    .join('\n');
  const body = rows
    .map(
      ({ cells, isHead }) =>
        `<tr${isHead ? ' class="head"' : ''}><th>${escaped(cells[0]!)}</th>${cells
          .slice(1)
          .map((cell) => `<td>${escaped(cell)}</td>`)
          .join('')}</tr>`,
    )
    .join('\n');
  const foot = note && `\n<p class="note">${escaped(note)}</p>`;
  return `<div class="table"><table>\n<thead>${head}</thead>\n<tbody>${body}</tbody>\n</table></div>${foot}`;
}

/** A self-contained file: it fetches nothing, and it prints well. */
export function writeHtml(title: string, blocks: readonly Block[]): string {
  const parts: string[] = [];
  let list: 'ul' | 'ol' | null = null;
  for (const block of blocks) {
    const wanted = block.kind === 'item' ? (block.ordered ? 'ol' : 'ul') : null;
    if (list && list !== wanted) parts.push(`</${list}>`);
    if (wanted && list !== wanted) parts.push(`<${wanted}>`);
    list = wanted;
    parts.push(write(block));
  }
  if (list) parts.push(`</${list}>`);
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<meta name="generator" content="Yellow Thread">
<meta name="date" content="${new Date().toISOString().slice(0, 10)}">
<title>${escaped(title)}</title>
<style>
body { font: 16px/1.55 Georgia, serif; color: #23211c; max-width: 60em; margin: 3em auto; padding: 0 1em }
h1, h2, h3, table, .note { font-family: system-ui, sans-serif }
table { border-collapse: collapse; font-size: 13px; margin: 1em 0 .4em; font-variant-numeric: tabular-nums }
th, td { padding: .25em .7em; text-align: right; vertical-align: bottom; font-weight: normal }
th:first-child { text-align: left; white-space: nowrap } tbody th { padding-left: 1.6em }
thead tr:last-child th { border-bottom: 1px solid #23211c; color: #655f53 } thead th { font-weight: 600 }
tr.head th, tr.head td { font-weight: 600; border-top: 1px solid #e3dfd4 } tr.head th { padding-left: .7em }
.note { font-size: 12px; color: #655f53 } .table { overflow-x: auto }
img { max-width: 100%; height: auto }
blockquote { margin: .5em 0 .5em 1em; padding-left: .9em; border-left: 3px solid #f2b600 }
@media print {
  body { font-size: 11pt; margin: 0; max-width: none; padding: 0 }
  h1, h2, h3 { break-after: avoid } table { break-inside: auto; font-size: 8.5pt } tr, blockquote, img { break-inside: avoid }
  thead { display: table-header-group } @page { margin: 18mm${isWide(blocks) ? '; size: A4 landscape' : ''} }
  .table { overflow: visible }
}
</style>
${parts.join('\n')}
</html>
`;
}
