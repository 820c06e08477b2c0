import { api, type TableFormat, type TogetherQuery } from '@yellow-thread/contract';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { keptWithin } from './queryClient.js';
import { call, addressOf } from './client.js';

/** A table; `query` is what chooses it in the address of the API. */
export const useReport = (study: number, question: number, query: string) =>
  useQuery({
    queryKey: ['report', study, question, query],
    queryFn: ({ signal }) =>
      call(api.getReport, { params: { study, question }, search: query, signal }),
    placeholderData: keptWithin(study, question),
  });

export const reportFileAddress = (
  study: number,
  question: number,
  format: TableFormat,
  query: string,
) => addressOf(api.downloadReport, { params: { study, question, format }, search: query });

export const respondentFileAddress = (study: number, format: 'zip' | 'xlsx') =>
  addressOf(api.downloadRespondents, { params: { study, format } });

export const togetherFileAddress = (
  study: number,
  question: number,
  format: 'csv' | 'xlsx',
  inOne: TogetherQuery['inOne'],
) =>
  addressOf(api.downloadTogether, { params: { study, question, format }, query: { inOne: inOne } });

/** What a number counts: a row in a column of a table, or two codes together. */
export interface Cell {
  row: string;
  column: string;
  with?: string;
  inOne?: TogetherQuery['inOne'];
}

export const useAnswersBehind = ({
  study,
  question,
  query,
  cell,
  words,
}: {
  study: number;
  question: number;
  query: string;
  cell: Cell;
  words: string;
}) =>
  useInfiniteQuery({
    queryKey: ['behind', study, question, query, cell, words],
    queryFn: ({ pageParam, signal }) =>
      call(api.getAnswersBehind, {
        params: { study, question },
        search: query,
        query: { ...cell, words, after: pageParam, limit: 50 },
        signal,
      }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next ?? undefined,
    placeholderData: keptWithin(study, question),
  });

export const useTogether = (study: number, question: number, inOne: TogetherQuery['inOne']) =>
  useQuery({
    queryKey: ['together', study, question, inOne],
    queryFn: ({ signal }) =>
      call(api.getCodesTogether, { params: { study, question }, query: { inOne }, signal }),
  });
