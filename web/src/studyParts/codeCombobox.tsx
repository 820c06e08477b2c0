import { findCodeNamed, findCodes } from '@yellow-thread/core/codebook';
import { useCombobox, type UseComboboxReturnValue } from 'downshift';
import { useId, useState, type KeyboardEvent, type ReactNode, type Ref } from 'react';
import type { DrawnCode } from '../data/codebook.js';
import { StitchMark } from '../parts/stitch.js';
import { codeComboboxTexts } from './texts.js';

/** A code that was found, or the name of a new one. */
type Choice = DrawnCode | string;

/** A field in which codes are found by typing, and what is found. */
export interface CodeCombobox extends Pick<
  UseComboboxReturnValue<Choice>,
  'getInputProps' | 'getItemProps' | 'getMenuProps' | 'highlightedIndex'
> {
  typed: string;
  /** What is typed, as a name. */
  name: string;
  choices: readonly Choice[];
  /** The code that Enter would pick; null for a new one, and where nothing is found. */
  highlighted: DrawnCode | null;
  type: (typed: string) => void;
  /** Picks what Enter would pick, at once. @returns whether there is anything */
  pick: () => boolean;
}

/**
 * Finds codes by a few letters of their names, themes or definitions.
 *
 * @param likely weights of codes that are likely here: these come first
 * @param onNew what a name that no code has does; left out, nothing
 */
export function useCodeCombobox(
  codes: readonly DrawnCode[],
  {
    most,
    likely,
    onPick,
    onNew,
  }: {
    most: number;
    likely?: Map<string, number>;
    onPick: (code: DrawnCode) => void;
    onNew?: ((name: string) => void) | undefined;
  },
): CodeCombobox {
  const id = useId();
  const [typed, setTyped] = useState('');
  const [highlightedIndex, setHighlighted] = useState(0);
  const name = typed.trim();
  // what is learnt while somebody types must not put another code under their Enter
  const [ranking, setRanking] = useState(likely);
  if (name === '' && ranking !== likely) setRanking(likely);
  const found = name === '' ? [] : findCodes(codes, name, ranking).slice(0, most);
  const isNew = onNew !== undefined && name !== '' && !findCodeNamed(codes, name);
  const choices: Choice[] = isNew ? [...found, name] : found;
  const type = (to: string) => {
    setTyped(to);
    setHighlighted(0);
  };
  const take = (choice: Choice) => {
    type('');
    if (typeof choice === 'string') onNew?.(choice);
    else onPick(choice);
  };
  const combobox = useCombobox<Choice>({
    id,
    items: choices,
    itemToString: () => typed,
    inputValue: typed,
    isOpen: choices.length > 0,
    // nothing stays selected: what is picked is done at once
    selectedItem: null,
    highlightedIndex,
    onHighlightedIndexChange: ({ highlightedIndex: to }) => setHighlighted(Math.max(0, to)),
    onSelectedItemChange: ({ selectedItem }) => {
      if (selectedItem) take(selectedItem);
    },
    stateReducer: (state, { type: what, changes }) => {
      const { InputBlur, ItemMouseMove, MenuMouseLeave } = useCombobox.stateChangeTypes;
      // a field that is left picks nothing, and a pointer that passes puts nothing under Enter
      return what === InputBlur || what === ItemMouseMove || what === MenuMouseLeave
        ? state
        : changes;
    },
  });
  const chosen = choices[highlightedIndex];
  return {
    ...combobox,
    typed,
    name,
    choices,
    highlighted: typeof chosen === 'object' ? chosen : null,
    type,
    pick() {
      if (chosen === undefined) return false;
      take(chosen);
      return true;
    },
  };
}

/** Keys that the list takes while something is found; Home and End are the text's. */
const LIST_KEYS = new Set(['ArrowDown', 'ArrowUp', 'Enter']);

/** The field of a code combobox. */
export function CodeField({
  ref,
  label,
  combobox,
  placeholder,
  onKey,
  className = '',
}: {
  ref?: Ref<HTMLInputElement>;
  label: string;
  combobox: CodeCombobox;
  placeholder: string;
  /** Takes a key before the list does. @returns whether it did anything */
  onKey?: (event: KeyboardEvent) => boolean;
  className?: string;
}) {
  const { choices, typed, type, pick } = combobox;
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const isTaken = onKey?.(event) ?? false;
    const isOfList = choices.length > 0 && LIST_KEYS.has(event.key) && !event.altKey;
    const clears = !isTaken && event.key === 'Escape' && typed !== '';
    if (clears) type('');
    // here, and not when downshift tells of it, a moment later: a second Enter may come before that
    const picks =
      !isTaken && isOfList && event.key === 'Enter' && !event.nativeEvent.isComposing && pick();
    if (isTaken || clears || picks) event.preventDefault();
    // whatever the field stands in does nothing with a key that is used up here
    if (clears || isOfList) event.stopPropagation();
    if (isTaken || picks || !isOfList)
      Object.assign(event.nativeEvent, { preventDownshiftDefault: true });
  };
  return (
    <input
      // eslint-disable-next-line react-hooks/refs -- downshift merges the refs and reads none
      {...combobox.getInputProps({
        ...(ref && { ref }),
        'aria-label': label,
        onKeyDown,
        // at once, and not when the list was drawn: a caret would jump to the end
        onChange: (event) => type(event.currentTarget.value),
      })}
      autoComplete="off"
      spellCheck={false}
      placeholder={placeholder}
      className={className}
    />
  );
}

/** The codes found, under the field in which they are looked for. */
export function FoundCodes({
  combobox,
  newName,
  about,
  className,
}: {
  combobox: CodeCombobox;
  newName: ReactNode;
  /** What speaks for a code here, in words. */
  about?: (codeId: string) => string | undefined;
  className: string;
}) {
  const { choices, highlightedIndex, getItemProps, getMenuProps } = combobox;
  return (
    <ul
      {...getMenuProps({ 'aria-label': codeComboboxTexts.codesFound })}
      hidden={choices.length === 0}
      className={`absolute top-full z-20 mt-1 rounded border border-rule bg-card py-1 shadow-[0_6px_20px_#0000001f] ${className}`}
    >
      {choices.map((choice, index) => (
        <li
          key={typeof choice === 'string' ? 'new' : choice.id}
          {...getItemProps({ item: choice, index, 'aria-selected': index === highlightedIndex })}
          className="flex cursor-pointer items-center gap-2 px-3 py-1 aria-selected:bg-wash"
        >
          {typeof choice === 'string' ? (
            newName
          ) : (
            <>
              <StitchMark look={choice.look} width={18} />
              <span className="font-medium">{choice.name}</span>
              <span className="truncate text-[13px] text-soft">{choice.themeName}</span>
              <span className="figures ml-auto text-[13px] text-soft">
                {[about?.(choice.id), choice.people].filter((one) => one !== undefined).join(' · ')}
              </span>
            </>
          )}
        </li>
      ))}
    </ul>
  );
}
