import { api, type ListedCode } from '@yellow-thread/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { call } from './client.js';
import { codebookKey } from './codebook.js';
import { asChange } from './queryClient.js';

/** Reads a code list without taking it in. */
export const useReadCodeList = (study: number) =>
  useMutation({
    mutationFn: (file: File) => {
      const body = new FormData();
      body.append('file', file, file.name);
      return call(api.readCodeList, { params: { study }, body });
    },
  });

export function useTakeCodeList(study: number) {
  const client = useQueryClient();
  return useMutation({
    ...asChange('report', 'reviews', 'history'),
    mutationFn: (codes: ListedCode[]) =>
      call(api.importCodeList, { params: { study }, body: { codes } }),
    onSuccess: (codebook) => client.setQueryData(codebookKey(study), codebook),
  });
}
