import type { SuggestedAnswer } from '@yellow-thread/contract';
import { splitAtPassages } from '@yellow-thread/core/coding';
import { blankAsides, findAsides, splitWords, type Span } from '@yellow-thread/core/text';
import { useMemo } from 'react';
import type { DrawnCode } from '../data/codebook.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { stitchImage } from '../lib/stitches.js';

type Mark = Span & ({ is: 'word'; strength: number } | { is: 'aside' | 'marked' | 'passage' });

/**
 * The answer with the words that led to the suggestion underlined, the stronger the thicker; passages on which the
 * code was given are stitched.
 */
export function Evidence({
  suggestion: { text, evidence, mentions },
  code,
  passage,
}: {
  suggestion: SuggestedAnswer;
  code: DrawnCode;
  /** Words marked by the reader. */
  passage: Span | null;
}) {
  const { asides } = useStudyLocation().study;
  const parts = useMemo(() => {
    const weights = new Map(evidence.map((one) => [one.word, one.weight]));
    const strongest = Math.max(...weights.values(), 0);
    // the interviewer's words lead to nothing
    const words = splitWords(blankAsides(text, asides)).flatMap(({ form, start, end }): Mark[] => {
      const weight = weights.get(form);
      return weight === undefined ? [] : [{ is: 'word', start, end, strength: weight / strongest }];
    });
    const said = findAsides(text, asides).map((aside): Mark => ({ is: 'aside', ...aside }));
    const given = mentions.flatMap(({ codeId, start, end }): Mark[] =>
      codeId === code.id && start !== null && end !== null ? [{ is: 'passage', start, end }] : [],
    );
    const marked: Mark[] = passage ? [{ is: 'marked', ...passage }] : [];
    return splitAtPassages({ start: 0, end: text.length }, [
      ...words,
      ...said,
      ...given,
      ...marked,
    ]);
  }, [text, evidence, asides, mentions, passage, code.id]);
  return parts.map(({ start, end, passages }) => {
    const word = passages.find((mark) => mark.is === 'word');
    const has = (is: Mark['is']) => passages.some((mark) => mark.is === is);
    const classes = [
      has('aside') && 'text-soft',
      has('marked') && 'bg-wash',
      has('passage') && 'box-decoration-clone bg-repeat-x pb-1',
      word && 'underline decoration-current underline-offset-4',
    ].filter(Boolean);
    return (
      <span
        key={start}
        data-start={start}
        className={classes.join(' ')}
        style={{
          ...(word && { textDecorationThickness: `${Math.max(0.6, 3.2 * word.strength)}px` }),
          ...(has('passage') && {
            backgroundImage: stitchImage(code.look),
            backgroundPosition: 'left bottom',
          }),
        }}
      >
        {text.slice(start, end)}
      </span>
    );
  });
}
