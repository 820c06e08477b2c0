import { splitWords } from './words.js';

/**
 * A text without some of its words, as if they had not been written.
 *
 * @param forms words as `splitWords` gives their forms
 * @example
 *   withoutWords('Far too dear, far', new Set(['far'])) // 'too dear,'
 */
export function withoutWords(text: string, forms: ReadonlySet<string>): string {
  if (forms.size === 0) return text;
  const words = splitWords(text).filter(({ form }) => forms.has(form));
  if (words.length === 0) return text;
  let rest = '';
  let at = 0;
  for (const { start, end } of words) {
    rest += text.slice(at, start);
    at = end;
  }
  return (rest + text.slice(at)).replace(/\s+/gu, ' ').trim();
}
