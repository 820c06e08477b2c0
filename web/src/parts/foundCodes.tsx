import { findCodeNamed, findCodes } from '@yellow-thread/core/codebook';
import type { ReactNode } from 'react';
import { useState } from 'react';
import type { DrawnCode } from '../data/codebook.js';
import { StitchMark } from './stitch.js';
import { foundCodesTexts } from './texts.js';

/** What is being typed to find a code, and what it finds. */
export interface CodeSearch {
  typed: string;
  name: string;
  found: DrawnCode[];
  /** No code is called so. */
  isNew: boolean;
  chosen: number;
  /** Codes found, and making a new one where that is offered. */
  choices: number;
  type: (typed: string) => void;
  choose: (place: number) => void;
  move: (step: 1 | -1) => void;
}

export function useCodeSearch(
  codes: readonly DrawnCode[],
  { most, offersNew, likely }: { most: number; offersNew: boolean; likely?: Map<string, number> },
): CodeSearch {
  const [typed, setTyped] = useState('');
  const [chosen, choose] = useState(0);
  const name = typed.trim();
  // what is learnt while somebody types must not put another code under their Enter
  const [ranking, setRanking] = useState(likely);
  if (name === '' && ranking !== likely) setRanking(likely);
  const found = name === '' ? [] : findCodes(codes, name, ranking).slice(0, most);
  const isNew = offersNew && name !== '' && !findCodeNamed(codes, name);
  const choices = found.length + (isNew ? 1 : 0);
  return {
    typed,
    name,
    found,
    isNew,
    chosen,
    choices,
    choose,
    type: (typed) => {
      setTyped(typed);
      choose(0);
    },
    move: (step) => choose((chosen + step + choices) % Math.max(1, choices)),
  };
}

/** The codes found, under the field in which they are looked for. */
export function FoundCodes({
  id,
  search,
  newName,
  about,
  className,
  onPick,
}: {
  id: string;
  search: CodeSearch;
  newName: ReactNode;
  /** What speaks for a code here, in words. */
  about?: (codeId: string) => string | undefined;
  className: string;
  onPick: (place: number) => void;
}) {
  const { found, isNew, chosen, choices } = search;
  const option = (place: number) => ({
    id: `${id}-${place}`,
    role: 'option',
    'aria-selected': place === chosen,
    onPointerDown: (event: React.PointerEvent) => {
      event.preventDefault();
      onPick(place);
    },
    className: 'flex cursor-pointer items-center gap-2 px-3 py-1 aria-selected:bg-wash',
  });
  return (
    <ul
      id={id}
      role="listbox"
      aria-label={foundCodesTexts.codesFound}
      hidden={choices === 0}
      className={`absolute top-full z-20 mt-1 rounded border border-rule bg-card py-1 shadow-[0_6px_20px_#0000001f] ${className}`}
    >
      {found.map((code, place) => (
        <li key={code.id} {...option(place)}>
          <StitchMark look={code.look} width={18} />
          <span className="font-medium">{code.name}</span>
          <span className="truncate text-[13px] text-soft">{code.themeName}</span>
          <span className="figures ml-auto text-[13px] text-soft">
            {[about?.(code.id), code.people].filter((one) => one !== undefined).join(' · ')}
          </span>
        </li>
      ))}
      {isNew && <li {...option(found.length)}>{newName}</li>}
    </ul>
  );
}
