import type { ShownNote } from '@yellow-thread/contract';
import { useState } from 'react';
import type { SeenCodebook } from '../data/codebook.js';
import type { NoteChange } from '../data/notes.js';
import { useSession } from '../data/people.js';
import { Button } from '../parts/button.js';
import { TextField } from '../parts/field.js';
import { NoteRow } from './noteRow.js';
import { noteListTexts } from './texts.js';

/** Notes that stand outside the ledger. */
export function NoteList({
  notes,
  codebook,
  onChange,
}: {
  notes: readonly ShownNote[];
  codebook: SeenCodebook;
  onChange: (change: NoteChange) => void;
}) {
  return (
    <ul className="flex flex-col gap-1 text-[13px]">
      {notes.map((note) => (
        <NoteRow
          key={note.id}
          note={note}
          passage={null}
          codebook={codebook}
          onEdit={(text) => onChange({ do: 'editNote', from: note, to: { ...note, text } })}
          onRemove={() => onChange({ do: 'removeNote', note })}
        />
      ))}
    </ul>
  );
}

/** Writes a note on a respondent or a code. */
export function NewNote({
  label,
  on,
  onChange,
}: {
  label: string;
  on: { respondentId: number } | { codeId: string };
  onChange: (change: NoteChange) => void;
}) {
  const account = useSession().data?.account;
  const [text, setText] = useState('');
  const add = () => {
    const note: ShownNote = {
      id: crypto.randomUUID(),
      studyId: 0,
      responseId: null,
      start: null,
      end: null,
      respondentId: null,
      codeId: null,
      ...on,
      text: text.trim(),
      unsure: false,
      authorId: account?.id ?? 0,
      author: account?.name ?? '',
      createdAt: new Date().toISOString(),
    };
    onChange({ do: 'addNote', note });
    setText('');
  };
  return (
    <>
      <TextField
        label={label}
        rows={2}
        maxLength={4000}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Button disabled={text.trim() === ''} onClick={add} className="self-start">
        {noteListTexts.addNote}
      </Button>
    </>
  );
}
