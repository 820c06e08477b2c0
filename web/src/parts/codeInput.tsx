import type { KeyboardEvent, Ref } from 'react';
import type { CodeSearch } from './foundCodes.js';
import { codeInputTexts } from './texts.js';

/** The field in which codes are found by typing; what is found stands in the list of this id. */
export function CodeInput({
  ref,
  label,
  list,
  search,
  onKey,
  className = '',
}: {
  ref: Ref<HTMLInputElement>;
  label: string;
  list: string;
  search: CodeSearch;
  /** False for a key that is left to the field itself. */
  onKey: (event: KeyboardEvent) => unknown;
  className?: string;
}) {
  return (
    <input
      ref={ref}
      data-codes="field"
      role="combobox"
      aria-label={label}
      aria-expanded={search.choices > 0}
      aria-controls={list}
      aria-activedescendant={search.choices > 0 ? `${list}-${search.chosen}` : undefined}
      autoComplete="off"
      spellCheck={false}
      placeholder={codeInputTexts.typeCode}
      value={search.typed}
      onChange={(event) => search.type(event.target.value)}
      onKeyDown={(event) => {
        if (onKey(event) !== false) event.preventDefault();
      }}
      className={`border-b-2 border-thread bg-transparent px-1 py-0.5 outline-none placeholder:text-soft ${className}`}
    />
  );
}

/** What a key does while a code is looked for; false for one that does nothing then. */
export function searchKey(search: CodeSearch, { key }: KeyboardEvent, onEnter: () => void) {
  switch (key) {
    case 'ArrowDown':
      return search.move(1);
    case 'ArrowUp':
      return search.move(-1);
    case 'Escape':
      return search.type('');
    case 'Enter':
      return onEnter();
    default:
      return false;
  }
}
