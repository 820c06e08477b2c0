import {
  doneSchema,
  importListSchema,
  importUndoSchema,
  jobSchema,
  problemSchema,
  sheetCheckSchema,
  sheetDifferenceSchema,
  sheetListSchema,
  sheetSchema,
  type FileSettings,
  type Job,
  type Sheet,
  type SheetList,
  type SheetSettings,
} from '@yellow-thread/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { call, ProblemError, send } from './client.js';
import { refresh } from './queryClient.js';

/** Sends a file, telling how far it is; can be called off. */
export function useUploadSheet(study: number) {
  const [share, setShare] = useState(0);
  const request = useRef<XMLHttpRequest | null>(null);
  const client = useQueryClient();
  const upload = useMutation({
    mutationFn: (file: File) => {
      setShare(0);
      const body = new FormData();
      body.append('file', file);
      return send(`/api/studies/${study}/sheets`, body, {
        onProgress: setShare,
        onRequest: (sent) => (request.current = sent),
      }).then(({ status, received }): Sheet | null => {
        if (status === 0) return null;
        if (status === 200) return sheetSchema.parse(received);
        throw new ProblemError(status, problemSchema.parse(received));
      });
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['sheets', study] }),
  });
  return { ...upload, share, cancel: () => request.current?.abort() };
}

/** Sheets that were uploaded and wait to be brought in. */
export const useSheets = (study: number) =>
  useQuery({
    queryKey: ['sheets', study],
    queryFn: () => call(`/api/studies/${study}/sheets`, { reply: sheetListSchema }),
  });

/** Takes a sheet off the list of those that wait, when it is known to be gone. */
export function useForgetSheet(study: number) {
  const client = useQueryClient();
  return (id: number) =>
    client.setQueryData(
      ['sheets', study],
      (before: SheetList | undefined) =>
        before && { sheets: before.sheets.filter((sheet) => sheet.id !== id) },
    );
}

const path = (study: number, sheet: number) => `/api/studies/${study}/sheets/${sheet}`;

/** An uploaded sheet; asked for again and again while it is being read. */
export const useSheet = (study: number, sheet: number) =>
  useQuery({
    queryKey: ['sheet', study, sheet],
    queryFn: () => call(path(study, sheet), { reply: sheetSchema }),
    refetchInterval: ({ state }) => (isUnderWay(state.data?.reading) ? 250 : false),
    staleTime: Infinity,
  });

/** Reads the file anew, in another way. */
export function useReadAgain(study: number, sheet: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (choices: Partial<FileSettings>) =>
      call(`${path(study, sheet)}/read`, { method: 'POST', body: choices, reply: jobSchema }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['sheet', study, sheet] }),
  });
}

export function useLeaveSheet(study: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (sheet: number) =>
      call(path(study, sheet), { method: 'DELETE', reply: doneSchema }),
    onSettled: () => client.invalidateQueries({ queryKey: ['sheets', study] }),
  });
}

/** What bringing the sheet in with these settings would write; follows the settings as they change. */
export const useSheetCheck = (study: number, sheet: number, settings: SheetSettings) =>
  useQuery({
    queryKey: ['sheet-check', study, sheet, settings],
    queryFn: ({ signal }) =>
      call(`${path(study, sheet)}/check`, {
        method: 'POST',
        body: settings,
        signal,
        reply: sheetCheckSchema,
      }),
    placeholderData: (before) => before,
    staleTime: Infinity,
  });

/** What a sheet of details or corrections would change. */
export const useSheetDifference = (
  study: number,
  sheet: number,
  settings: SheetSettings,
  enabled: boolean,
) =>
  useQuery({
    queryKey: ['sheet-difference', study, sheet, settings],
    enabled: enabled && settings.as !== 'respondents',
    queryFn: ({ signal }) =>
      call(`${path(study, sheet)}/difference`, {
        method: 'POST',
        body: settings,
        signal,
        reply: sheetDifferenceSchema,
      }),
    placeholderData: (before) => before,
    staleTime: Infinity,
  });

export const useImportSheet = (study: number, sheet: number) =>
  useMutation({
    mutationFn: (settings: SheetSettings) =>
      call(`${path(study, sheet)}/import`, { method: 'POST', body: settings, reply: jobSchema }),
  });

/** Everything that was ever brought into the study. */
export const useImports = (study: number) =>
  useQuery({
    queryKey: ['imports', study],
    queryFn: () => call(`/api/studies/${study}/imports`, { reply: importListSchema }),
  });

/** What would go if an import were taken back. */
export const useWhatUndoTakes = (study: number, id: number, enabled: boolean) =>
  useQuery({
    queryKey: ['imports', study, id],
    enabled,
    staleTime: 0,
    queryFn: () => call(`/api/studies/${study}/imports/${id}/undo`, { reply: importUndoSchema }),
  });

export const useUndoImport = (study: number, id: number) =>
  useMutation({
    mutationFn: () =>
      call(`/api/studies/${study}/imports/${id}/undo`, { method: 'POST', reply: jobSchema }),
  });

/** Takes an import that was taken back out of the bin. */
export const useRestoreImport = (study: number, id: number) =>
  useMutation({
    mutationFn: () =>
      call(`/api/studies/${study}/imports/${id}/restore`, { method: 'POST', reply: jobSchema }),
  });

export const isUnderWay = (job: Job | null | undefined): boolean =>
  job?.state === 'waiting' || job?.state === 'running';

/** What no job changes. */
const KEPT = new Set(['session', 'job', 'sheet', 'sheet-check', 'sheet-difference']);
const nothing: ReadonlySet<string> = new Set();

/**
 * A job as it goes on; when it ends, everything about the study is fetched anew.
 *
 * @param keeps what is shown as it is, although the job may have changed it
 */
export function useJob(
  study: number,
  id: number | null,
  known: Job | null = null,
  keeps: ReadonlySet<string> = nothing,
) {
  const job = useQuery({
    queryKey: ['job', id],
    enabled: id !== null,
    queryFn: () => call(`/api/studies/${study}/jobs/${id}`, { reply: jobSchema }),
    refetchInterval: ({ state }) => (!state.data || isUnderWay(state.data) ? 300 : false),
    staleTime: 0,
    ...(known && known.id === id && { initialData: known }),
  });
  const ended = job.data !== undefined && !isUnderWay(job.data);
  const underWay = id !== null && !ended;
  const wasUnderWay = useRef(false);
  useEffect(() => {
    if (ended && wasUnderWay.current)
      void refresh(
        ({ queryKey: [resource] }) => !KEPT.has(String(resource)) && !keeps.has(String(resource)),
      );
    wasUnderWay.current = underWay;
  }, [ended, underWay, keeps]);
  const cancel = useCancelJob(study);
  return {
    job: job.data,
    underWay,
    cancel: () => id !== null && cancel.mutate(id),
  };
}

export const useCancelJob = (study: number) =>
  useMutation({
    mutationFn: (id: number) =>
      call(`/api/studies/${study}/jobs/${id}`, { method: 'DELETE', reply: jobSchema }),
  });
