import type { Theme } from '@yellow-thread/contract';
import { useChangeCodebook, type DrawnCode } from '../data/codebook.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { counted } from '../parts/numbers.js';
import { EditedText } from '../parts/editedText.js';
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
        maxLength={120}
        required
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
          maxLength={4000}
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
