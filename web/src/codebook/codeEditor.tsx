import type { Theme } from '@yellow-thread/contract';
import { useId, useState } from 'react';
import { useChangeCodebook, type DrawnCode } from '../data/codebook.js';
import { Button } from '../parts/button.js';
import { Choice, inputBox } from '../parts/field.js';
import { counted } from '../parts/numbers.js';
import { StitchMark } from '../parts/stitch.js';

type Prose = 'definition' | 'include' | 'exclude';

const prose: { field: Prose; label: string }[] = [
  { field: 'definition', label: 'Definition: what belongs here' },
  { field: 'include', label: 'Include' },
  { field: 'exclude', label: 'Leave out' },
];

/** The text of one code; each field is saved when it is left. */
export function CodeEditor({
  code,
  themes,
  study,
  onRemoved,
}: {
  code: DrawnCode;
  themes: Theme[];
  study: number;
  onRemoved: () => void;
}) {
  const change = useChangeCodebook(study);
  const save = (field: Prose | 'name', from: string, to: string) =>
    change.mutate({
      do: 'editCode',
      id: code.id,
      edit: { from: { [field]: from }, to: { [field]: to } },
    });
  return (
    <div className="flex max-w-2xl flex-col gap-5">
      <div className="flex items-center gap-3">
        <StitchMark look={code.look} width={36} />
        <span className="figures text-soft">
          {counted(code.people, 'person', 'people')}, {counted(code.mentions, 'mention')} in all
          questions
        </span>
      </div>
      <EditedText
        label="Name"
        value={code.name}
        rows={1}
        onSave={(from, to) => save('name', from, to)}
      />
      <Choice
        label="Theme"
        value={code.themeId ?? ''}
        onChange={(event) =>
          change.mutate({
            do: 'editCode',
            id: code.id,
            edit: { from: { themeId: code.themeId }, to: { themeId: event.target.value || null } },
          })
        }
      >
        <option value="">none yet</option>
        {themes.map((theme) => (
          <option key={theme.id} value={theme.id}>
            {theme.name}
          </option>
        ))}
      </Choice>
      {prose.map(({ field, label }) => (
        <EditedText
          key={field}
          label={label}
          value={code[field]}
          rows={3}
          onSave={(from, to) => save(field, from, to)}
        />
      ))}
      <p className="text-soft">
        The models learn from these words too: say them as your respondents would.
      </p>
      <div>
        <Button
          disabled={code.mentions > 0}
          onClick={() => change.mutate({ do: 'removeCode', code }, { onSuccess: onRemoved })}
        >
          Remove the code
        </Button>
        {code.mentions > 0 && (
          <span className="ml-3 text-soft">It is in use: take its mentions away first.</span>
        )}
      </div>
    </div>
  );
}

/** A text that is saved when one leaves it. What others write in the meantime is shown, never overwritten unseen. */
function EditedText({
  label,
  value,
  rows,
  onSave,
}: {
  label: string;
  value: string;
  rows: number;
  onSave: (from: string, to: string) => void;
}) {
  const id = useId();
  // what is being written, and what it began from
  const [writing, setWriting] = useState({ from: value, to: value });
  const unsaved = writing.to.trim() !== value && writing.to !== writing.from;
  const changedByOthers = unsaved && writing.from !== value;
  const leave = () => {
    const to = writing.to.trim();
    if (unsaved && (rows > 1 || to !== '')) onSave(value, to);
    else setWriting({ from: value, to: value });
  };
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="font-medium">
        {label}
      </label>
      <textarea
        id={id}
        rows={rows}
        maxLength={rows === 1 ? 120 : 4000}
        className={`${inputBox} ${rows === 1 ? 'resize-none' : 'resize-y'}`}
        value={unsaved ? writing.to : value}
        onChange={(event) => {
          const to = rows === 1 ? event.target.value.replaceAll('\n', ' ') : event.target.value;
          setWriting({ from: unsaved ? writing.from : value, to });
        }}
        onBlur={leave}
      />
      {changedByOthers && (
        <p role="status" className="text-brick">
          Somebody changed this in the meantime to “{value}”. What you wrote is kept here; leave the
          field to put yours in its place.
        </p>
      )}
    </div>
  );
}
