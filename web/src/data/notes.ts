import { doneSchema, notesSchema, type ShownNote } from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import type { Span } from '@yellow-thread/core/text';
import { call } from './client.js';
import { asChange } from './queryClient.js';

export const useNotes = (study: number) =>
  useQuery({
    queryKey: ['notes', study],
    queryFn: () => call(`/api/studies/${study}/notes`, { reply: notesSchema }),
  });

/** A note on an answer or on some of its words, as it is drawn before it is saved. */
export const noteOn = (
  responseId: number,
  author: { id: number; name: string } | null,
  { text, unsure, passage = null }: { text: string; unsure: boolean; passage?: Span | null },
): ShownNote => ({
  id: crypto.randomUUID(),
  studyId: 0,
  responseId,
  start: passage?.start ?? null,
  end: passage?.end ?? null,
  respondentId: null,
  codeId: null,
  text,
  unsure,
  authorId: author?.id ?? 0,
  author: author?.name ?? '',
  createdAt: new Date().toISOString(),
});

export type NoteChange =
  | { do: 'addNote'; note: ShownNote }
  | { do: 'editNote'; from: ShownNote; to: ShownNote }
  | { do: 'removeNote'; note: ShownNote };

/** Method, path and body of a change of a note. */
export function noteRequest(study: number, change: NoteChange) {
  const path = `/api/studies/${study}/notes`;
  switch (change.do) {
    case 'addNote': {
      const { id, responseId, start, end, respondentId, codeId, text, unsure } = change.note;
      const body = { id, responseId, start, end, respondentId, codeId, text, unsure };
      return { method: 'POST', path, body } as const;
    }
    case 'editNote': {
      const words = ({ text, unsure }: ShownNote) => ({ text, unsure });
      const body = { from: words(change.from), to: words(change.to) };
      return { method: 'PATCH', path: `${path}/${change.from.id}`, body } as const;
    }
    case 'removeNote':
      return { method: 'DELETE', path: `${path}/${change.note.id}` } as const;
  }
}

/** Changes a note from outside the ledger. */
export const useChangeNote = (study: number) =>
  useMutation({
    ...asChange('notes', 'answers', 'others', 'ledger', 'history'),
    mutationFn: (change: NoteChange) => {
      const { path, ...request } = noteRequest(study, change);
      return call(path, { ...request, reply: doneSchema });
    },
  });
