import { useId } from 'react';
import type { DrawnCode } from '../data/codebook.js';
import { searchKey } from './codeInput.js';
import { inputBox } from './field.js';
import { FoundCodes, useCodeSearch } from './foundCodes.js';
import { codePickerTexts } from './texts.js';

/** Finds a code by a few letters of its name, theme or definition. */
export function CodePicker({
  label,
  codes,
  placeholder = 'a code …',
  className = 'w-44',
  onPick,
  onNew,
}: {
  label: string;
  codes: readonly DrawnCode[];
  placeholder?: string;
  className?: string;
  onPick: (code: DrawnCode) => void;
  /** What a name that no code has does; left out, nothing. */
  onNew?: (name: string) => void;
}) {
  const search = useCodeSearch(codes, { most: 8, offersNew: onNew !== undefined });
  const list = useId();
  const pick = (place: number) => {
    const code = search.found[place];
    if (code) onPick(code);
    else if (search.isNew) onNew?.(search.name);
    else return;
    search.type('');
  };
  return (
    <span className="relative inline-block">
      <input
        role="combobox"
        aria-label={label}
        aria-expanded={search.choices > 0}
        aria-controls={list}
        aria-activedescendant={search.choices > 0 ? `${list}-${search.chosen}` : undefined}
        autoComplete="off"
        placeholder={placeholder}
        className={`${inputBox} !py-1 ${className}`}
        value={search.typed}
        onChange={(event) => search.type(event.target.value)}
        onKeyDown={(event) => {
          // left to whatever the field stands in
          if (event.key === 'Escape' && search.typed === '') return;
          if (searchKey(search, event, () => pick(search.chosen)) === false) return;
          event.preventDefault();
          event.stopPropagation();
        }}
      />
      <FoundCodes
        id={list}
        search={search}
        newName={<>{codePickerTexts.newCode(search.name)}</>}
        className="left-0 w-[320px] max-w-[80vw]"
        onPick={pick}
      />
    </span>
  );
}
