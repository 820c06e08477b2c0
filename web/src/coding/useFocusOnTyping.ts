import { useLayoutEffect, useRef, type RefObject } from 'react';
import { isTyping } from '../frame/typing.js';
import type { LedgerPosition } from './useLedgerPosition.js';

/**
 * Leads what is typed while the code field has lost the focus to that field: after words were dragged, a drawer was
 * closed or a button pressed, and while the answer that one has gone to is still being fetched.
 *
 * @param isFetched whether the answer that one is at is there
 * @returns what was typed before the field was there, for the field to take
 */
export function useFocusOnTyping(
  feed: RefObject<HTMLElement | null>,
  { moveLine, moveAnswer }: LedgerPosition,
  isFetched: boolean,
): RefObject<string> {
  const typedAheadRef = useRef('');
  useLayoutEffect(() => {
    const moves: Record<string, () => void> = {
      ArrowDown: () => moveLine(1),
      ArrowUp: () => moveLine(-1),
      PageDown: () => moveAnswer(1),
      PageUp: () => moveAnswer(-1),
    };
    const onKey = (event: KeyboardEvent) => {
      const { key, target } = event;
      if (event.defaultPrevented || !(target instanceof HTMLElement)) return;
      if (target !== document.body && !feed.current?.contains(target)) return;
      if (isTyping(target) || target instanceof HTMLInputElement) return;
      if ((event.ctrlKey || event.metaKey) && !['Enter', 'Home', 'End'].includes(key)) return;
      if (['Tab', '?', 'Shift', 'Control', 'Alt', 'Meta'].includes(key)) return;
      if (target.closest('button, a') && (key === 'Enter' || key === ' ')) return;
      const field = feed.current?.querySelector<HTMLInputElement>('[role=combobox]');
      if (field) {
        field.focus({ preventScroll: true });
        const { code, shiftKey, altKey, ctrlKey, metaKey } = event;
        const again = { key, code, shiftKey, altKey, ctrlKey, metaKey };
        // the field does with it what it would have done; a letter that it leaves goes into it, now that it has the focus
        const left = field.dispatchEvent(
          new KeyboardEvent('keydown', { ...again, bubbles: true, cancelable: true }),
        );
        if (!left) event.preventDefault();
        return;
      }
      if (moves[key]) {
        typedAheadRef.current = '';
        moves[key]();
      } else if (!isFetched && key.length === 1 && !event.altKey) typedAheadRef.current += key;
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [feed, moveLine, moveAnswer, isFetched]);
  return typedAheadRef;
}
