import type { ShownNote } from '@yellow-thread/contract';
import { X } from 'lucide-react';
import { useState } from 'react';
import type { SeenCodebook } from '../data/codebook.js';
import { asDate } from '../lib/numbers.js';
import { NoteText } from './noteText.js';
import { noteRowTexts } from './texts.js';

/** A note with who wrote it and when; its text is written again where it stands. */
export function NoteRow({
  note,
  passage,
  codebook,
  onEdit,
  onRemove,
}: {
  note: ShownNote;
  /** The words that it is about; null for all of them. */
  passage: string | null;
  codebook: SeenCodebook;
  onEdit: (text: string) => void;
  onRemove: () => void;
}) {
  const [writing, setWriting] = useState<string | null>(null);
  const kind = note.unsure
    ? noteRowTexts.unsure
    : note.text === ''
      ? noteRowTexts.marked
      : noteRowTexts.note;
  const leave = () => {
    if (writing !== null && writing.trim() !== note.text) onEdit(writing.trim());
    setWriting(null);
  };
  return (
    <li className="group flex items-baseline gap-2">
      <span className="shrink-0 text-deep">{kind}</span>
      <span className="min-w-0 flex-1">
        {passage !== null && (
          <span className="text-soft">
            {noteRowTexts.on}
            <span className="font-serif">{passage}</span>”{' '}
          </span>
        )}
        {writing === null ? (
          <button
            type="button"
            tabIndex={-1}
            className="text-left"
            aria-label={note.text === '' ? noteRowTexts.writeSomethingHere : undefined}
            onClick={() => setWriting(note.text)}
          >
            <NoteText text={note.text} codebook={codebook} />
          </button>
        ) : (
          <textarea
            aria-label={noteRowTexts.note2}
            rows={2}
            maxLength={4000}
            autoFocus
            className="block w-full rounded border border-rule bg-card px-2 py-1"
            value={writing}
            onChange={(event) => setWriting(event.target.value)}
            onBlur={leave}
            onKeyDown={(event) => {
              if (event.key === 'Escape') setWriting(null);
              else if (event.key === 'Enter' && !event.shiftKey) leave();
              else return;
              event.preventDefault();
            }}
          />
        )}
      </span>
      <span className="shrink-0 text-soft">
        {note.author}, {asDate(note.createdAt)}
      </span>
      <button
        type="button"
        tabIndex={-1}
        aria-label={noteRowTexts.remove(kind.toLowerCase())}
        onClick={onRemove}
        className="shrink-0 text-soft opacity-0 focus:opacity-100 group-hover:opacity-100"
      >
        <X size={12} aria-hidden />
      </button>
    </li>
  );
}
