import { isAscii } from './ascii.js';
import { segmentsOf } from './segments.js';
import type { Span } from './lines.js';

/** A word as it is compared (`form`: lower case, ’ as ') and where it stands in the text. */
export interface Word extends Span {
  form: string;
}

const pattern = /[\p{L}\p{M}\p{N}]+(?:['’][\p{L}\p{M}]+)*/gu;
const unspaced =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;
const segmenter = new Intl.Segmenter(undefined, { granularity: 'word' });

/**
 * The words of a text in order. Scripts that write no spaces between words are separated by
 * `Intl.Segmenter`; all others by runs of letters and digits with inner apostrophes. Stop words,
 * numbers and one-letter words are kept.
 *
 * @example
 *   splitWords('Far too dear').map(({ form }) => form) // ['far', 'too', 'dear']
 */
export function splitWords(text: string): Word[] {
  const words: Word[] = [];
  if (isAscii(text)) {
    for (const { 0: raw, index } of text.matchAll(pattern))
      words.push({ form: raw.toLowerCase(), start: index, end: index + raw.length });
    return words;
  }
  for (const match of text.matchAll(pattern)) {
    if (!unspaced.test(match[0])) words.push(wordAt(match[0], match.index));
    else
      for (const { segment, index, isWordLike } of segmentsOf(segmenter, match[0]))
        if (isWordLike) words.push(wordAt(segment, match.index + index));
  }
  return words;
}

function wordAt(raw: string, start: number): Word {
  const form = raw.normalize('NFKC').toLowerCase().replaceAll('’', "'");
  return { form, start, end: start + raw.length };
}
