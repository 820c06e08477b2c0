import { api } from '@yellow-thread/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { call, pathOf } from './client.js';
import { asChange, refresh } from './queryClient.js';
import { studyOptions } from './studies.js';

/** Where what is kept of one respondent is downloaded. */
export const personalDataAddress = (study: number, externalId: string): string =>
  pathOf(api.downloadPersonalData, { params: { study }, query: { externalId } });

/** Deletes a respondent everywhere; whatever is shown of the study may have held them. */
export const useDeleteRespondent = (study: number) =>
  useMutation({
    ...asChange(),
    mutationFn: (externalId: string) =>
      call(api.deleteRespondent, { params: { study }, body: { externalId } }),
    onSuccess: () => void refresh(({ queryKey }) => queryKey[0] !== 'session'),
  });

export function useChangePrivacy(study: number) {
  const client = useQueryClient();
  return useMutation({
    ...asChange('study', 'history'),
    mutationFn: (masksForReaders: boolean) =>
      call(api.changePrivacy, { params: { study }, body: { masksForReaders } }),
    onMutate: (masksForReaders) =>
      client.setQueryData(
        studyOptions(study).queryKey,
        (before) => before && { ...before, masksForReaders },
      ),
  });
}
