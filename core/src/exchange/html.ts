const marks: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text as it may stand in HTML. */
export const escapeHtml = (text: string): string =>
  text.replaceAll(/[&<>"]/gu, (character) => marks[character]!);
