import type { RespondentRow, Variable } from '@yellow-thread/contract';
import { useId, useRef, useState } from 'react';
import { useChangeBackground, useVariable } from '../data/respondents.js';
import { typedValue } from '../data/background.js';
import { valueEditorTexts } from './texts.js';

/** One value of one respondent being typed: Enter keeps it, Escape leaves it as it was. */
export function ValueEditor({
  study,
  respondent,
  variable,
  onStop,
}: {
  study: number;
  respondent: RespondentRow;
  variable: Variable;
  /** @param focus whether the keyboard goes back to the table */
  onStop: (focus: boolean) => void;
}) {
  const { mutate } = useChangeBackground(study);
  const { data } = useVariable(study, variable.id);
  const list = useId();
  const stored = respondent.background[String(variable.id)] ?? null;
  const before =
    typeof stored === 'boolean'
      ? stored
        ? valueEditorTexts.yes
        : valueEditorTexts.no
      : String(stored ?? '');
  const [typed, setTyped] = useState(before);
  const value = typedValue(variable.kind, typed);
  // Enter gives the focus back, which is left once more before the field is gone
  const ended = useRef(false);
  const end = (keeps: boolean, focus: boolean) => {
    if (ended.current) return;
    ended.current = true;
    if (keeps && value !== undefined && typed.trim() !== before)
      mutate({ respondent: respondent.id, variableId: variable.id, value });
    onStop(focus);
  };
  const options =
    variable.kind === 'yes_no'
      ? [valueEditorTexts.yes, valueEditorTexts.no]
      : (data?.categories.map((one) => one.value) ?? []);
  return (
    <>
      <input
        autoFocus
        aria-label={valueEditorTexts.of(variable.name, respondent.externalId)}
        aria-invalid={value === undefined}
        title={value === undefined ? hints[variable.kind] : undefined}
        type={variable.kind === 'date' ? 'date' : 'text'}
        list={options.length > 0 ? list : undefined}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onClick={(event) => event.stopPropagation()}
        onBlur={() => end(true, false)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') end(false, true);
          if (event.key === 'Enter' && value !== undefined) end(true, true);
        }}
        className={`w-full bg-transparent outline-none ${value === undefined ? 'text-brick' : ''}`}
      />
      <datalist id={list}>
        {options.map((option) => (
          <option key={option} value={option} />
        ))}
      </datalist>
    </>
  );
}

const hints = {
  category: '',
  number: valueEditorTexts.mustNumber,
  date: valueEditorTexts.mustDate,
  yes_no: valueEditorTexts.mustYesNo,
};
