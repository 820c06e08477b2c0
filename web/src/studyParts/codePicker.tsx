import type { DrawnCode } from '../data/codebook.js';
import { CodeField, FoundCodes, useCodeCombobox } from './codeCombobox.js';
import { inputBox } from '../parts/field.js';
import { codePickerTexts } from './texts.js';

/** Finds a code by a few letters of its name, theme or definition. */
export function CodePicker({
  label,
  codes,
  placeholder = codePickerTexts.code,
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
  const combobox = useCodeCombobox(codes, { most: 8, onPick, onNew });
  return (
    <span className="relative inline-block">
      <CodeField
        label={label}
        combobox={combobox}
        placeholder={placeholder}
        className={`${inputBox} !py-1 ${className}`}
      />
      <FoundCodes
        combobox={combobox}
        newName={<>{codePickerTexts.newCode(combobox.name)}</>}
        className="left-0 w-[320px] max-w-[80vw]"
      />
    </span>
  );
}
