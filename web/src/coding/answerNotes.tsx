import type { LedgerAnswer } from '@yellow-thread/contract';
import type { SeenCodebook } from '../data/codebook.js';
import type { CodingChange } from '../data/coding.js';
import { NoteRow } from '../studyParts/noteRow.js';
import { answerNotesTexts } from './texts.js';

/** What was noted on an answer, below its lines. */
export function AnswerNotes({
  answer,
  codebook,
  onChange,
}: {
  answer: LedgerAnswer;
  codebook: SeenCodebook;
  onChange: (change: CodingChange) => void;
}) {
  if (answer.notes.length === 0) return null;
  return (
    <ul
      aria-label={answerNotesTexts.notes}
      className="mt-1 flex max-w-[1120px] flex-col gap-0.5 text-[13px]"
    >
      {answer.notes.map((note) => (
        <NoteRow
          key={note.id}
          note={note}
          passage={
            note.start === null || note.end === null
              ? null
              : answer.text.slice(note.start, note.end)
          }
          codebook={codebook}
          onEdit={(text) => onChange({ do: 'editNote', from: note, to: { ...note, text } })}
          onRemove={() => onChange({ do: 'removeNote', note })}
        />
      ))}
    </ul>
  );
}
