import { api, type StudyCreate } from '@yellow-thread/contract';
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from './client.js';
import { asProblem } from '../lib/problem.js';
import { refresh } from './queryClient.js';
import { studiesTexts } from './texts.js';

export const useStudies = () =>
  useQuery({
    queryKey: ['studies'],
    queryFn: () => call(api.listStudies),
  });

export function useCreateStudy() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: StudyCreate) => call(api.createStudy, { body }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['studies'] }),
  });
}

/** Archives a study for its whole team, or brings it back. */
export function useArchiveStudy(study: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (isArchived: boolean) =>
      call(api.archiveStudy, { params: { study }, body: { isArchived } }),
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
    mutationFn: (name: string) => call(api.deleteStudy, { params: { study }, body: { name } }),
    onSuccess: () => {
      onDeleted();
      void client.invalidateQueries({ queryKey: ['studies'] });
    },
  });
}

export const studyOptions = (study: number) =>
  queryOptions({
    queryKey: ['study', study],
    queryFn: () => call(api.getStudy, { params: { study } }),
  });

export const useStudy = (study: number) => useQuery(studyOptions(study));

/** Undo and redo of the person's own changes in a study; says what it took back. */
export function useHistory(study: number) {
  const { mutate } = useMutation({
    scope: { id: 'change' },
    mutationFn: (way: 'undo' | 'redo') =>
      call(way === 'undo' ? api.undo : api.redo, { params: { study } }),
    onSuccess: ({ summary }, way) => {
      toast(`${way === 'undo' ? studiesTexts.undid : studiesTexts.redid}: ${summary}`);
      // what is done next does not wait for it
      void refresh(({ queryKey }) => queryKey[0] !== 'session');
    },
    onError: (error) => toast(asProblem(error).sentence),
  });
  return { undo: () => mutate('undo'), redo: () => mutate('redo') };
}
