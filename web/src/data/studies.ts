import {
  doneSchema,
  studyDetailSchema,
  studyListSchema,
  studySummarySchema,
  undoneSchema,
  type StudyCreate,
} from '@yellow-thread/contract';
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { asProblem, call } from './client.js';
import { refresh } from './queryClient.js';
import { studiesTexts } from './texts.js';

export const useStudies = () =>
  useQuery({
    queryKey: ['studies'],
    queryFn: () => call('/api/studies', { reply: studyListSchema }),
  });

export function useCreateStudy() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: StudyCreate) =>
      call('/api/studies', { method: 'POST', body, reply: studySummarySchema }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['studies'] }),
  });
}

/** Archives a study for its whole team, or brings it back. */
export function useArchiveStudy(study: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (isArchived: boolean) =>
      call(`/api/studies/${study}/archived`, {
        method: 'PUT',
        body: { isArchived },
        reply: doneSchema,
      }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['studies'] }),
  });
}

/**
 * Deletes a study, whose name was typed.
 *
 * @param onDeleted called whatever page is shown by then: that of the study may have noticed that it is gone
 */
export function useDeleteStudy(study: number, onDeleted: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (name: string) =>
      call(`/api/studies/${study}/deletion`, { method: 'POST', body: { name }, reply: doneSchema }),
    onSuccess: () => {
      onDeleted();
      void client.invalidateQueries({ queryKey: ['studies'] });
    },
  });
}

export const studyOptions = (study: number) =>
  queryOptions({
    queryKey: ['study', study],
    queryFn: () => call(`/api/studies/${study}`, { reply: studyDetailSchema }),
  });

export const useStudy = (study: number) => useQuery(studyOptions(study));

/** Undo and redo of the person's own changes in a study; says what it took back. */
export function useHistory(study: number) {
  const { mutate } = useMutation({
    scope: { id: 'change' },
    mutationFn: (way: 'undo' | 'redo') =>
      call(`/api/studies/${study}/${way}`, { method: 'POST', reply: undoneSchema }),
    onSuccess: ({ summary }, way) => {
      toast(`${way === 'undo' ? studiesTexts.undid : studiesTexts.redid}: ${summary}`);
      // what is done next does not wait for it
      void refresh(({ queryKey }) => queryKey[0] !== 'session');
    },
    onError: (error) => toast(asProblem(error).sentence),
  });
  return { undo: () => mutate('undo'), redo: () => mutate('redo') };
}
