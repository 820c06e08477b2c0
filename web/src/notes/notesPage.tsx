import type { ListedNote } from '@yellow-thread/contract';
import { foldForSearch } from '@yellow-thread/core/text';
import { useState } from 'react';
import { Link } from 'react-router';
import { NoteRow } from '../studyParts/noteRow.js';
import { useDrawnCodebook } from '../data/codebook.js';
import { useChangeNote, useNotes } from '../data/notes.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { Choice, inputBox } from '../parts/field.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { notesPageTexts } from './texts.js';

const kinds = { all: 'everything', notes: 'notes', marks: 'marks', unsure: 'unsure' };
type Kind = keyof typeof kinds;

const kindOf = (note: ListedNote): Kind =>
  note.unsure ? 'unsure' : note.text === '' ? 'marks' : 'notes';

/** Everything that was noted, marked or left unsure in a study. */
export function NotesPage() {
  const study = useStudyDetail();
  const notes = useNotes(study.id);
  const codebook = useDrawnCodebook(study.id);
  const { mutate: change } = useChangeNote(study.id);
  const [kind, setKind] = useState<Kind>('all');
  const [typed, setTyped] = useState('');
  if (notes.isError) return <ProblemNote error={notes.error} />;
  if (!notes.data || !codebook) return <Waiting what={notesPageTexts.notes} />;
  const wanted = foldForSearch(typed);
  const shown = notes.data.notes.filter(
    (note) =>
      (kind === 'all' || kindOf(note) === kind) &&
      foldForSearch(`${note.text} ${note.author}`).includes(wanted),
  );
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <header className="mb-4 flex max-w-4xl flex-wrap items-baseline justify-between gap-4">
        <h1>{notesPageTexts.notes2}</h1>
        <span className="flex flex-wrap items-center gap-x-3 gap-y-2">
          <Choice
            label={notesPageTexts.which}
            hideLabel
            value={kind}
            onChange={(event) => setKind(event.target.value as Kind)}
          >
            {Object.entries(kinds).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </Choice>
          <input
            aria-label={notesPageTexts.notesContaining}
            placeholder={notesPageTexts.containing}
            className={`${inputBox} w-48`}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          <span className="figures text-soft">{notesPageTexts.noteCounted(shown.length)}</span>
        </span>
      </header>
      {notes.data.notes.length === 0 && (
        <p className="max-w-prose text-soft">
          {notesPageTexts.nothingNotedYetWhile} <kbd>{notesPageTexts.altN}</kbd>{' '}
          {notesPageTexts.writesNoteLineOne}
          <kbd>{notesPageTexts.altM}</kbd> {notesPageTexts.marksComeBack}{' '}
          <kbd>{notesPageTexts.altU}</kbd> {notesPageTexts.saysOneUnsure}
        </p>
      )}
      <ul className="flex max-w-4xl flex-col">
        {shown.map((note) => (
          <li key={note.id} className="border-b border-rule py-2">
            <WhatItIsOn
              study={study.id}
              note={note}
              codeName={codebook.byId.get(note.codeId ?? '')?.name}
            />
            <ul>
              <NoteRow
                note={note}
                passage={null}
                codebook={codebook}
                onEdit={(text) => change({ do: 'editNote', from: note, to: { ...note, text } })}
                onRemove={() => change({ do: 'removeNote', note })}
              />
            </ul>
          </li>
        ))}
      </ul>
    </main>
  );
}

function WhatItIsOn({
  study,
  note,
  codeName,
}: {
  study: number;
  note: ListedNote;
  codeName: string | undefined;
}) {
  if (note.codeId)
    return (
      <Link className="text-[13px] underline" to={`/studies/${study}/codebook?code=${note.codeId}`}>
        {notesPageTexts.code}
        {codeName}”
      </Link>
    );
  if (note.on === null) return null;
  const { externalId, questionId, words } = note.on;
  return (
    <p className="text-[13px] text-soft">
      {questionId === null ? (
        <Link className="underline" to={`/studies/${study}/respondents?find=${externalId}`}>
          {notesPageTexts.on(externalId)}
        </Link>
      ) : (
        <Link
          className="underline"
          to={`/studies/${study}/questions/${questionId}/code?like=${note.responseId}&same=apart`}
        >
          {notesPageTexts.answer(externalId)}
        </Link>
      )}
      {words !== null && <span className="voice ml-2 text-ink">{words}</span>}
    </p>
  );
}
