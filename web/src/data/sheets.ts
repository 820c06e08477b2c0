import {
  jobSchema,
  sheetCheckSchema,
  sheetSchema,
  type ColumnRole,
  type Job,
} from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { call } from './client.js';
import { refresh } from './queryClient.js';

export const useUploadSheet = (study: number) =>
  useMutation({
    mutationFn: (file: File) => {
      const body = new FormData();
      body.append('file', file);
      return call(`/api/studies/${study}/sheets`, { method: 'POST', body, reply: sheetSchema });
    },
  });

/** What bringing the sheet in with these roles would write; follows the roles as they change. */
export const useSheetCheck = (study: number, sheet: number, roles: ColumnRole[]) =>
  useQuery({
    queryKey: ['sheet', sheet, roles],
    queryFn: ({ signal }) =>
      call(`/api/studies/${study}/sheets/${sheet}/check`, {
        method: 'POST',
        body: { roles },
        signal,
        reply: sheetCheckSchema,
      }),
    placeholderData: (before) => before,
  });

export const useImportSheet = (study: number, sheet: number) =>
  useMutation({
    mutationFn: (roles: ColumnRole[]) =>
      call(`/api/studies/${study}/sheets/${sheet}/import`, {
        method: 'POST',
        body: { roles },
        reply: jobSchema,
      }),
  });

const underWay = (job: Job | undefined) => job?.state === 'waiting' || job?.state === 'running';

/** A job as it goes on; when it ends, everything about the study is fetched anew. */
export function useJob(study: number, id: number | null) {
  const job = useQuery({
    queryKey: ['job', id],
    enabled: id !== null,
    queryFn: () => call(`/api/studies/${study}/jobs/${id}`, { reply: jobSchema }),
    refetchInterval: ({ state }) => (!state.data || underWay(state.data) ? 300 : false),
    staleTime: 0,
  });
  const ended = job.data !== undefined && !underWay(job.data);
  useEffect(() => {
    if (ended) void refresh(({ queryKey }) => !['session', 'job'].includes(String(queryKey[0])));
  }, [ended]);
  const cancel = useMutation({
    mutationFn: () =>
      call(`/api/studies/${study}/jobs/${id}`, { method: 'DELETE', reply: jobSchema }),
  });
  return { job: job.data, underWay: id !== null && !ended, cancel };
}
