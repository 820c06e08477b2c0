/** Whether a key was pressed by itself, and not as part of a text. */
export const isKeyAlone = ({ target, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean =>
  !(isTyping(target) || ctrlKey || metaKey || altKey);

/** True when a key pressed here is part of a text that is being written. */
export function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement)
    return !['checkbox', 'radio', 'range', 'file'].includes(target.type) && target.value !== '';
  return (
    target instanceof HTMLTextAreaElement ||
    target instanceof HTMLSelectElement ||
    (target instanceof HTMLElement && target.isContentEditable)
  );
}
