import {
  api,
  type Picture,
  type ReportFormat,
  type WriteUpContent,
  type WriteUpSave,
} from '@yellow-thread/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call, pathOf } from './client.js';
import { asChange } from './queryClient.js';

export const useWriteUps = (study: number) =>
  useQuery({
    queryKey: ['write-ups', study],
    queryFn: () => call(api.listWriteUps, { params: { study } }),
  });

/** A write-up with its figures as they are now. */
export const useWriteUp = (study: number, id: string) =>
  useQuery({
    queryKey: ['write-up', study, id],
    queryFn: () => call(api.getWriteUp, { params: { study, writeUp: id } }),
  });

export const useSaveWriteUp = (study: number) =>
  useMutation({
    ...asChange('write-ups'),
    mutationFn: ({ id, ...body }: WriteUpSave & { id: string }) =>
      call(api.saveWriteUp, { params: { study, writeUp: id }, body }),
  });

export const useRemoveWriteUp = (study: number) =>
  useMutation({
    ...asChange('write-ups'),
    mutationFn: (id: string) => call(api.removeWriteUp, { params: { study, writeUp: id } }),
  });

export const useRestoreWriteUp = (study: number) =>
  useMutation({
    ...asChange('write-ups'),
    mutationFn: (id: string) => call(api.restoreWriteUp, { params: { study, writeUp: id } }),
  });

export const useFreezeWriteUp = (study: number) =>
  useMutation({
    ...asChange('write-ups'),
    mutationFn: ({ of, id }: { of: string; id: string }) =>
      call(api.freezeWriteUp, { params: { study, writeUp: of }, body: { id } }),
  });

export const emptyContent: WriteUpContent = {
  tables: [],
  pictures: [],
  background: [],
  masked: true,
  names: [],
  drafted: [],
  body: null,
};

/** What is put into a write-up: a table, which follows the data, or a chart as it was drawn. */
export type PutIn =
  | { table: Omit<WriteUpContent['tables'][number], 'id'> }
  | { picture: Omit<Picture, 'id'>; png: Blob };

/** Puts something into a write-up, which is read again for that. */
export function usePutIn(study: number) {
  const client = useQueryClient();
  const save = useSaveWriteUp(study);
  return useMutation({
    mutationFn: async ({
      writeUp,
      name,
      what,
    }: {
      /** Null for a new one. */
      writeUp: string | null;
      name: string;
      what: PutIn;
    }) => {
      const id = writeUp ?? crypto.randomUUID();
      const stored =
        writeUp === null ? null : await call(api.getWriteUp, { params: { study, writeUp } });
      const content = stored?.content ?? emptyContent;
      const itsId = crypto.randomUUID();
      if ('png' in what)
        await call(api.keepPicture, {
          params: { study, picture: itsId },
          body: { png: await asBase64(what.png) },
        });
      await save.mutateAsync({
        id,
        name: stored?.name ?? name,
        version: stored?.version ?? 0,
        content:
          'png' in what
            ? { ...content, pictures: [...content.pictures, { id: itsId, ...what.picture }] }
            : { ...content, tables: [...content.tables, { id: itsId, ...what.table }] },
      });
      return { id, name: stored?.name ?? name };
    },
    onSuccess: ({ id }) => client.invalidateQueries({ queryKey: ['write-up', study, id] }),
  });
}

export const pictureAddress = (study: number, picture: string) =>
  pathOf(api.readPicture, { params: { study, picture } });

async function asBase64(blob: Blob): Promise<string> {
  let binary = '';
  for (const byte of new Uint8Array(await blob.arrayBuffer())) binary += String.fromCharCode(byte);
  return btoa(binary);
}

export const writeUpFileAddress = (study: number, writeUp: string, format: ReportFormat) =>
  pathOf(api.downloadWriteUp, { params: { study, writeUp, format } });
