import { api, doneSchema, type ShownNote } from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import type { Span } from '@yellow-thread/core/text';
import { call, prepare, sendRequest, type PreparedRequest } from './client.js';
import { asChange } from './queryClient.js';

export const useNotes = (study: number) =>
  useQuery({
    queryKey: ['notes', study],
    queryFn: () => call(api.listNotes, { params: { study } }),
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

/** The request that makes a change of a note. */
export function noteRequest(study: number, change: NoteChange): PreparedRequest {
  switch (change.do) {
    case 'addNote': {
      const { id, responseId, start, end, respondentId, codeId, text, unsure } = change.note;
      const body = { id, responseId, start, end, respondentId, codeId, text, unsure };
      return prepare(api.addNote, { params: { study }, body });
    }
    case 'editNote': {
      const words = ({ text, unsure }: ShownNote) => ({ text, unsure });
      const body = { from: words(change.from), to: words(change.to) };
      return prepare(api.editNote, { params: { study, note: change.from.id }, body });
    }
    case 'removeNote':
      return prepare(api.removeNote, { params: { study, note: change.note.id } });
  }
}

/** Changes a note from outside the ledger. */
export const useChangeNote = (study: number) =>
  useMutation({
    ...asChange('notes', 'answers', 'others', 'ledger', 'history'),
    mutationFn: (change: NoteChange) => sendRequest(noteRequest(study, change), doneSchema),
  });
