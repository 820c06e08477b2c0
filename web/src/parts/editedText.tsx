import { useState } from 'react';
import { TextField } from './field.js';
import { editedTextTexts } from './texts.js';

/** A text that is saved when one leaves it. What others write in the meantime is shown, never overwritten unseen. */
export function EditedText({
  label,
  value,
  rows,
  maxLength,
  required = false,
  hint,
  className = '',
  onSave,
}: {
  label: string;
  value: string;
  /** One row holds one line. */
  rows: number;
  maxLength: number;
  /** A blank one is not kept. */
  required?: boolean;
  hint?: string;
  className?: string;
  onSave: (from: string, to: string) => void;
}) {
  // what is being written, what it began from, and whether it was handed over to be saved
  const [writing, setWriting] = useState({ from: value, to: value, sent: false });
  // saved: from now on what others write is shown
  if (writing.sent && writing.to.trim() === value)
    setWriting({ from: value, to: value, sent: false });
  const unsaved = writing.to.trim() !== value && writing.to !== writing.from;
  const changedByOthers = unsaved && writing.from !== value;
  const leave = () => {
    const to = writing.to.trim();
    if (unsaved && (!required || to !== '')) {
      onSave(value, to);
      setWriting({ ...writing, sent: true });
    } else setWriting({ from: value, to: value, sent: false });
  };
  return (
    <div className="flex flex-col gap-1">
      <TextField
        label={label}
        rows={rows}
        maxLength={maxLength}
        className={`${rows === 1 ? 'resize-none' : 'resize-y'} ${className}`}
        {...(hint !== undefined && { hint })}
        value={unsaved ? writing.to : value}
        onChange={(event) => {
          const to = rows === 1 ? event.target.value.replaceAll('\n', ' ') : event.target.value;
          setWriting({ from: unsaved ? writing.from : value, to, sent: false });
        }}
        onBlur={leave}
      />
      {changedByOthers && (
        <p role="status" className="text-brick">
          {editedTextTexts.somebodyChangedMeantimeWhat(value)}
        </p>
      )}
    </div>
  );
}
