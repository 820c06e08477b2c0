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
