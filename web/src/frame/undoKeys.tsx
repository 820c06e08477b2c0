import { useEffect } from 'react';
import { useHistory } from '../data/studies.js';
import { isTyping } from './typing.js';

/** Ctrl or ⌘ Z takes back the last change wherever no text is being written. */
export function UndoKeys({ study }: { study: number }) {
  const { undo, redo } = useHistory(study);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const letter = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || event.altKey || isTyping(event.target)) return;
      if (letter !== 'z' && letter !== 'y') return;
      event.preventDefault();
      if (letter === 'y' || event.shiftKey) redo();
      else undo();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [undo, redo]);
  return null;
}
