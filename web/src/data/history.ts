import { api } from '@yellow-thread/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { call } from './client.js';

/** What was done to a study, newest first; to one code where one is given. */
export const useChanges = (study: number, { code, by }: { code?: string; by?: number }) =>
  useInfiniteQuery({
    queryKey: ['history', study, code ?? null, by ?? null],
    queryFn: ({ pageParam, signal }) =>
      call(api.getHistory, { params: { study }, query: { code, by, before: pageParam }, signal }),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => last.next ?? undefined,
  });
