import {
  api,
  problemSchema,
  sheetSchema,
  type FileChoices,
  type Job,
  type Sheet,
  type SheetList,
  type SheetSettings,
} from '@yellow-thread/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { addressOf, call, send } from './client.js';
import { ProblemError } from '../lib/problem.js';
import { refresh, keptWithin } from './queryClient.js';

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
      return send(addressOf(api.uploadSheet, { params: { study } }), body, {
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

/** Sheets that were uploaded and wait to be imported. */
export const useSheets = (study: number) =>
  useQuery({
    queryKey: ['sheets', study],
    queryFn: () => call(api.listSheets, { params: { study } }),
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

/** An uploaded sheet; asked for again and again while it is being read. */
export const useSheet = (study: number, sheet: number) =>
  useQuery({
    queryKey: ['sheet', study, sheet],
    queryFn: () => call(api.getSheet, { params: { study, sheet } }),
    refetchInterval: ({ state }) => (isUnderWay(state.data?.reading) ? 250 : false),
    staleTime: Infinity,
  });

/** Reads the file again, in another way. */
export function useReadAgain(study: number, sheet: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (choices: FileChoices) =>
      call(api.readSheet, { params: { study, sheet }, body: choices }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['sheet', study, sheet] }),
  });
}

export function useLeaveSheet(study: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (sheet: number) => call(api.cancelSheet, { params: { study, sheet } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['sheets', study] }),
  });
}

/** What bringing the sheet in with these settings would write; follows the settings as they change. */
export const useSheetCheck = (study: number, sheet: number, settings: SheetSettings) =>
  useQuery({
    queryKey: ['sheet-check', study, sheet, settings],
    queryFn: ({ signal }) =>
      call(api.checkSheet, { params: { study, sheet }, body: settings, signal }),
    placeholderData: keptWithin(study, sheet),
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
      call(api.compareSheet, { params: { study, sheet }, body: settings, signal }),
    placeholderData: keptWithin(study, sheet),
    staleTime: Infinity,
  });

export const useImportSheet = (study: number, sheet: number) =>
  useMutation({
    mutationFn: (settings: SheetSettings) =>
      call(api.importSheet, { params: { study, sheet }, body: settings }),
  });

/** Everything that was ever brought into the study. */
export const useImports = (study: number) =>
  useQuery({
    queryKey: ['imports', study],
    queryFn: () => call(api.listImports, { params: { study } }),
  });

/** What would go if an import were undone. */
export const useWhatUndoTakes = (study: number, id: number, enabled: boolean) =>
  useQuery({
    queryKey: ['imports', study, id],
    enabled,
    staleTime: 0,
    queryFn: () => call(api.previewUndoImport, { params: { study, import: id } }),
  });

export const useUndoImport = (study: number, id: number) =>
  useMutation({
    mutationFn: () => call(api.undoImport, { params: { study, import: id } }),
  });

/** Takes an import that was undone out of the bin. */
export const useRestoreImport = (study: number, id: number) =>
  useMutation({
    mutationFn: () => call(api.restoreImport, { params: { study, import: id } }),
  });

export const isUnderWay = (job: Job | null | undefined): boolean =>
  job?.state === 'waiting' || job?.state === 'running';

/** What no job changes. */
const KEPT = new Set(['session', 'job', 'sheet', 'sheet-check', 'sheet-difference']);
const nothing: ReadonlySet<string> = new Set();

/**
 * A job as it goes on; when it ends, everything about the study is fetched again.
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
    queryFn: () => call(api.getJob, { params: { study, job: id } }),
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
    mutationFn: (id: number) => call(api.cancelJob, { params: { study, job: id } }),
  });
