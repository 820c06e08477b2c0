import type { Span } from '@yellow-thread/core/text';

/** The stretch of text selected with the pointer inside an answer, if any; the browser's own mark is removed. */
export function readSelection(answer: HTMLElement): Span | null {
  const selection = window.getSelection();
  if (!selection || selection.isCollapsed) return null;
  const range = selection.getRangeAt(0);
  const passage = passageIn(answer, range);
  selection.removeAllRanges();
  return passage;
}

/** What a range covers of an answer's words: whatever else it covers is left aside. */
function passageIn(answer: HTMLElement, range: Range): Span | null {
  let first: number | null = null;
  let last = 0;
  for (const segment of answer.querySelectorAll<HTMLElement>('[data-start]')) {
    if (!range.intersectsNode(segment)) continue;
    const from = Number(segment.dataset['start']);
    const placeOf = (node: Node, offset: number, outside: number) =>
      segment.contains(node) && node.nodeType === Node.TEXT_NODE ? offset : outside;
    const start = from + placeOf(range.startContainer, range.startOffset, 0);
    const end =
      from + placeOf(range.endContainer, range.endOffset, segment.textContent?.length ?? 0);
    if (end === start) continue;
    first ??= start;
    last = end;
  }
  return first === null ? null : { start: first, end: last };
}
