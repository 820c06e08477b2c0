import type { Span } from '@yellow-thread/core/text';

/** The stretch of text selected with the pointer inside a line, if any; the browser's own mark is taken off. */
export function readSelection(line: HTMLElement): Span | null {
  const selection = window.getSelection();
  if (!selection || selection.isCollapsed) return null;
  const from = offsetOf(line, selection.anchorNode, selection.anchorOffset);
  const to = offsetOf(line, selection.focusNode, selection.focusOffset);
  selection.removeAllRanges();
  if (from === null || to === null || from === to) return null;
  return { start: Math.min(from, to), end: Math.max(from, to) };
}

function offsetOf(line: HTMLElement, node: Node | null, offset: number): number | null {
  const segment = (node instanceof Element ? node : node?.parentElement)?.closest('[data-start]');
  if (!(segment instanceof HTMLElement) || !line.contains(segment)) return null;
  return Number(segment.dataset['start']) + offset;
}
