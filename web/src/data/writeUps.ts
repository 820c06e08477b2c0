import {
  doneSchema,
  writeUpListSchema,
  writeUpSavedSchema,
  writeUpSchema,
  type ReportFormat,
  type WriteUpContent,
  type WriteUpSave,
} from '@yellow-thread/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange } from './queryClient.js';

const path = (study: number, id?: string) =>
  `/api/studies/${study}/write-ups${id === undefined ? '' : `/${id}`}`;

export const useWriteUps = (study: number) =>
  useQuery({
    queryKey: ['write-ups', study],
    queryFn: () => call(path(study), { reply: writeUpListSchema }),
  });

/** A write-up with its figures as they are now. */
export const useWriteUp = (study: number, id: string) =>
  useQuery({
    queryKey: ['write-up', study, id],
    queryFn: () => call(path(study, id), { reply: writeUpSchema }),
  });

export const useSaveWriteUp = (study: number) =>
  useMutation({
    ...asChange('write-ups'),
    mutationFn: ({ id, ...body }: WriteUpSave & { id: string }) =>
      call(path(study, id), { method: 'PUT', body, reply: writeUpSavedSchema }),
  });

export const useRemoveWriteUp = (study: number) =>
  useMutation({
    ...asChange('write-ups'),
    mutationFn: (id: string) => call(path(study, id), { method: 'DELETE', reply: doneSchema }),
  });

export const useFreezeWriteUp = (study: number) =>
  useMutation({
    ...asChange('write-ups'),
    mutationFn: ({ of, id }: { of: string; id: string }) =>
      call(`${path(study, of)}/freeze`, { method: 'POST', body: { id }, reply: doneSchema }),
  });

export const emptyContent: WriteUpContent = {
  tables: [],
  background: [],
  masked: true,
  names: [],
  body: null,
};

/** Puts a table into a write-up, which is read anew for that. */
export function usePutTable(study: number) {
  const client = useQueryClient();
  const save = useSaveWriteUp(study);
  return useMutation({
    mutationFn: async ({
      writeUp,
      name,
      questionId,
      query,
    }: {
      /** Null for a new one. */
      writeUp: string | null;
      name: string;
      questionId: number;
      query: string;
    }) => {
      const id = writeUp ?? crypto.randomUUID();
      const stored =
        writeUp === null ? null : await call(path(study, writeUp), { reply: writeUpSchema });
      const content = stored?.content ?? emptyContent;
      const table = { id: crypto.randomUUID(), questionId, query };
      await save.mutateAsync({
        id,
        name: stored?.name ?? name,
        version: stored?.version ?? 0,
        content: { ...content, tables: [...content.tables, table] },
      });
      return { id, name: stored?.name ?? name };
    },
    onSuccess: ({ id }) => client.invalidateQueries({ queryKey: ['write-up', study, id] }),
  });
}

export const writeUpFileAddress = (study: number, id: string, format: ReportFormat) =>
  `${path(study, id)}/files/${format}`;
