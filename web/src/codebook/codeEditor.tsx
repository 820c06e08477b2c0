import type { StudyDetail } from '@yellow-thread/contract';
import { Link } from 'react-router';
import {
  useChangeCodebook,
  usePins,
  useSetPin,
  type DrawnCode,
  type DrawnCodebook,
} from '../data/codebook.js';
import { NewNote, NoteList } from '../parts/noteList.js';
import { useChangeNote, useNotes } from '../data/notes.js';
import { Choice } from '../parts/field.js';
import { counted } from '../parts/numbers.js';
import { EditedText } from '../parts/editedText.js';
import { StitchMark } from '../parts/stitch.js';
import { CodeDeeds } from './codeDeeds.js';
import { CodeMentions } from './codeMentions.js';

type Prose = 'definition' | 'include' | 'exclude';

const prose: { field: Prose; label: string }[] = [
  { field: 'definition', label: 'Definition: what belongs here' },
  { field: 'include', label: 'Include' },
  { field: 'exclude', label: 'Exclude' },
];

/** One code: its text, where it belongs, its examples, and what can be done with it. */
export function CodeEditor({
  code,
  codebook,
  study,
  onGone,
}: {
  code: DrawnCode;
  codebook: DrawnCodebook;
  study: StudyDetail;
  onGone: () => void;
}) {
  const { mutate: change } = useChangeCodebook(study.id);
  const notes = useNotes(study.id);
  const { mutate: changeNote } = useChangeNote(study.id);
  const save = <Field extends Prose | 'name' | 'themeId' | 'questions'>(
    field: Field,
    to: DrawnCode[Field],
    from: DrawnCode[Field] = code[field],
  ) =>
    change({ do: 'editCode', id: code.id, edit: { from: { [field]: from }, to: { [field]: to } } });
  return (
    <div className="flex max-w-2xl flex-col gap-5">
      <div className="flex items-center gap-3">
        <StitchMark look={code.look} width={36} />
        <span className="figures text-soft">
          {counted(code.people, 'person', 'people')}, {counted(code.mentions, 'mention')} in all
          questions{code.archived && ' · archived'}
        </span>
      </div>
      <EditedText
        label="Name"
        value={code.name}
        rows={1}
        maxLength={120}
        required
        onSave={(from, to) => save('name', to, from)}
      />
      <Choice
        label="Theme"
        value={code.themeId ?? ''}
        onChange={(event) => save('themeId', event.target.value || null)}
      >
        <option value="">none yet</option>
        {codebook.themes.map((theme) => (
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
          onSave={(from, to) => save(field, to, from)}
        />
      ))}
      <p className="text-soft">
        The models learn from these words too: say them as your respondents would.
      </p>
      {study.questions.length > 1 && (
        <fieldset className="flex flex-col gap-1">
          <legend className="mb-1 font-medium">Offered while coding</legend>
          {study.questions.map((question) => {
            const all = study.questions.map(({ id }) => id);
            const its = code.questions ?? all;
            return (
              <label key={question.id} className="flex items-baseline gap-2">
                <input
                  type="checkbox"
                  checked={its.includes(question.id)}
                  onChange={({ target }) => {
                    const next = target.checked
                      ? all.filter((id) => its.includes(id) || id === question.id)
                      : its.filter((id) => id !== question.id);
                    save('questions', next.length === all.length ? null : next);
                  }}
                />
                {question.label}
              </label>
            );
          })}
        </fieldset>
      )}
      {codebook.bundles.length > 0 && (
        <fieldset className="flex flex-col gap-1">
          <legend className="mb-1 font-medium">In the bundles</legend>
          {codebook.bundles.map(({ id, name, codeIds }) => (
            <label key={id} className="flex items-baseline gap-2">
              <input
                type="checkbox"
                checked={codeIds.includes(code.id)}
                onChange={({ target }) => {
                  const others = codeIds.filter((one) => one !== code.id);
                  const next = target.checked ? [...others, code.id] : others;
                  change({ do: 'putBundle', bundle: { id, name, codeIds: next } });
                }}
              />
              {name}
            </label>
          ))}
        </fieldset>
      )}
      <PinChoice study={study.id} code={code.id} />
      <CodeMentions study={study} code={code} codebook={codebook} />
      <section aria-label="Notes on the code" className="flex flex-col gap-2">
        <h2 className="border-b border-rule pb-1">Notes</h2>
        <NoteList
          notes={(notes.data?.notes ?? []).filter((note) => note.codeId === code.id)}
          codebook={codebook}
          onChange={changeNote}
        />
        <NewNote label="A note on this code" on={{ codeId: code.id }} onChange={changeNote} />
      </section>
      <Link to={`/studies/${study.id}/history?code=${code.id}`} className="self-start underline">
        What was done with this code, and by whom
      </Link>
      <CodeDeeds study={study.id} code={code} codebook={codebook} onGone={onGone} />
    </div>
  );
}

function PinChoice({ study, code }: { study: number; code: string }) {
  const { data: pins = [] } = usePins(study);
  const { mutate: setPin } = useSetPin(study);
  const pinned = pins.find((pin) => pin.codeId === code)?.key ?? 0;
  return (
    <Choice
      label="Key while coding, for you"
      value={pinned}
      onChange={(event) => {
        const key = Number(event.target.value);
        setPin(key === 0 ? { key: pinned, codeId: null } : { key, codeId: code });
      }}
    >
      <option value={0}>none</option>
      {[1, 2, 3, 4, 5, 6, 7, 8, 9].map((key) => (
        <option key={key} value={key}>
          {key}
          {pins.some((pin) => pin.key === key && pin.codeId !== code) && ' (taken)'}
        </option>
      ))}
    </Choice>
  );
}
