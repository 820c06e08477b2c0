import { doneSchema, notesSchema, type ShownNote } from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange } from './queryClient.js';

export const useNotes = (study: number) =>
  useQuery({
    queryKey: ['notes', study],
    queryFn: () => call(`/api/studies/${study}/notes`, { reply: notesSchema }),
  });

export type NoteChange =
  | { do: 'add'; note: ShownNote }
  | { do: 'edit'; from: ShownNote; text: string }
  | { do: 'remove'; note: ShownNote };

/** Changes a note from outside the ledger. */
export const useChangeNote = (study: number) =>
  useMutation({
    ...asChange('notes', 'answers', 'others', 'history'),
    mutationFn: (change: NoteChange) => {
      const path = `/api/studies/${study}/notes`;
      const reply = doneSchema;
      switch (change.do) {
        case 'add': {
          const { id, responseId, start, end, respondentId, codeId, text, unsure } = change.note;
          const body = { id, responseId, start, end, respondentId, codeId, text, unsure };
          return call(path, { method: 'POST', body, reply });
        }
        case 'edit': {
          const { id, text, unsure } = change.from;
          const body = { from: { text, unsure }, to: { text: change.text, unsure } };
          return call(`${path}/${id}`, { method: 'PATCH', body, reply });
        }
        case 'remove':
          return call(`${path}/${change.note.id}`, { method: 'DELETE', reply });
      }
    },
  });
