import { findCodeNamed } from '@yellow-thread/core/codebook';
import { Link } from 'react-router';
import type { SeenCodebook } from '../data/codebook.js';
import { useStudyId } from '../frame/studyLocation.js';

/** A note's text; a code's name in double brackets leads to the code, `[[#R0012]]` to a respondent. */
export function NoteText({ text, codebook }: { text: string; codebook: SeenCodebook }) {
  const study = useStudyId();
  return text.split(/(\[\[[^[\]]+\]\])/u).map((piece, i) => {
    const name = /^\[\[(.+)\]\]$/u.exec(piece)?.[1];
    if (name === undefined) return piece;
    if (name.startsWith('#'))
      return (
        <Link
          key={i}
          className="underline"
          to={`/studies/${study}/respondents?find=${encodeURIComponent(name.slice(1))}`}
        >
          {name.slice(1)}
        </Link>
      );
    const code = findCodeNamed(codebook.codes, name);
    return code ? (
      <Link key={i} className="underline" to={`/studies/${study}/codebook?code=${code.id}`}>
        {code.name}
      </Link>
    ) : (
      piece
    );
  });
}
