import type { StudyDetail } from '@yellow-thread/contract';
import { Link } from 'react-router';
import {
  useChangeCodebook,
  usePins,
  useSetPin,
  type DrawnCode,
  type DrawnCodebook,
} from '../data/codebook.js';
import { NearestAnswers } from '../studyParts/nearestAnswers.js';
import { NewNote, NoteList } from '../studyParts/noteList.js';
import { useChangeNote, useNotes } from '../data/notes.js';
import { Choice } from '../parts/field.js';
import { EditedText } from '../parts/editedText.js';
import { StitchMark } from '../parts/stitch.js';
import { CodeActions } from './codeActions.js';
import { CodeMentions } from './codeMentions.js';
import { codeEditorTexts } from './texts.js';

type Prose = 'definition' | 'include' | 'exclude';

const prose: { field: Prose; label: string }[] = [
  { field: 'definition', label: codeEditorTexts.definitionWhatBelongsHere },
  { field: 'include', label: codeEditorTexts.include },
  { field: 'exclude', label: codeEditorTexts.exclude },
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
          {codeEditorTexts.allQuestions(code.people, code.mentions)}
          {code.archived && codeEditorTexts.archived}
        </span>
      </div>
      <EditedText
        label={codeEditorTexts.name}
        value={code.name}
        rows={1}
        maxLength={120}
        required
        onSave={(from, to) => save('name', to, from)}
      />
      <Choice
        label={codeEditorTexts.theme}
        value={code.themeId ?? ''}
        onChange={(event) => save('themeId', event.target.value || null)}
      >
        <option value="">{codeEditorTexts.noneYet}</option>
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
      <p className="text-soft">{codeEditorTexts.modelsLearnWordsToo}</p>
      {study.questions.length > 1 && (
        <fieldset className="flex flex-col gap-1">
          <legend className="mb-1 font-medium">{codeEditorTexts.offeredWhileCoding}</legend>
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
          <legend className="mb-1 font-medium">{codeEditorTexts.bundles}</legend>
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
      {!code.archived && <NearestAnswers study={study.id} code={code} limit={8} />}
      <section aria-label={codeEditorTexts.notesCode} className="flex flex-col gap-2">
        <h2 className="border-b border-rule pb-1">{codeEditorTexts.notes}</h2>
        <NoteList
          notes={(notes.data?.notes ?? []).filter((note) => note.codeId === code.id)}
          codebook={codebook}
          onChange={changeNote}
        />
        <NewNote label={codeEditorTexts.noteCode} on={{ codeId: code.id }} onChange={changeNote} />
      </section>
      <Link to={`/studies/${study.id}/history?code=${code.id}`} className="self-start underline">
        {codeEditorTexts.whatDoneCodeWhom}
      </Link>
      <CodeActions study={study.id} code={code} codebook={codebook} onGone={onGone} />
    </div>
  );
}

function PinChoice({ study, code }: { study: number; code: string }) {
  const { data: pins = [] } = usePins(study);
  const { mutate: setPin } = useSetPin(study);
  const pinned = pins.find((pin) => pin.codeId === code)?.key ?? 0;
  return (
    <Choice
      label={codeEditorTexts.keyWhileCodingYou}
      value={pinned}
      onChange={(event) => {
        const key = Number(event.target.value);
        setPin(key === 0 ? { key: pinned, codeId: null } : { key, codeId: code });
      }}
    >
      <option value={0}>{codeEditorTexts.none}</option>
      {[1, 2, 3, 4, 5, 6, 7, 8, 9].map((key) => (
        <option key={key} value={key}>
          {key}
          {pins.some((pin) => pin.key === key && pin.codeId !== code) && codeEditorTexts.taken}
        </option>
      ))}
    </Choice>
  );
}
