import {
  behindSchema,
  lookSchema,
  reportSchema,
  togetherSchema,
  type TableFormat,
  type TogetherQuery,
} from '@yellow-thread/contract';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { call, withGroup } from './client.js';

const pathOf = (study: number, question: number) =>
  `/api/studies/${study}/questions/${question}/report`;

/** A table; `query` is what chooses it in the address of the API. */
export const useReport = (study: number, question: number, query: string) =>
  useQuery({
    queryKey: ['report', study, question, query],
    queryFn: ({ signal }) =>
      call(`${pathOf(study, question)}?${query}`, { signal, reply: reportSchema }),
    placeholderData: (before) => before,
  });

export const reportFileAddress = (
  study: number,
  question: number,
  format: TableFormat,
  query: string,
) => withGroup(`${pathOf(study, question)}/files/${format}?${query}`);

export const respondentFileAddress = (study: number, format: 'zip' | 'xlsx') =>
  withGroup(`/api/studies/${study}/respondents/files/${format}`);

export const togetherFileAddress = (
  study: number,
  question: number,
  format: 'csv' | 'xlsx',
  inOne: TogetherQuery['inOne'],
) =>
  withGroup(`/api/studies/${study}/questions/${question}/together/files/${format}?inOne=${inOne}`);

/** What a number counts: a row in a column of a table, or two codes together. */
export interface Cell {
  row: string;
  column: string;
  with?: string;
  inOne?: TogetherQuery['inOne'];
}

export const useAnswersBehind = (
  study: number,
  question: number,
  query: string,
  cell: Cell,
  words: string,
) =>
  useInfiniteQuery({
    queryKey: ['behind', study, question, query, cell, words],
    queryFn: ({ pageParam, signal }) =>
      call(`${pathOf(study, question)}/answers?${query}`, {
        query: { ...cell, words, after: pageParam, limit: 50 },
        signal,
        reply: behindSchema,
      }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next ?? undefined,
    placeholderData: (before) => before,
  });

export const useTogether = (study: number, question: number, inOne: TogetherQuery['inOne']) =>
  useQuery({
    queryKey: ['together', study, question, inOne],
    queryFn: ({ signal }) =>
      call(`/api/studies/${study}/questions/${question}/together`, {
        query: { inOne },
        signal,
        reply: togetherSchema,
      }),
  });

export const useLook = (study: number, question: number) =>
  useQuery({
    queryKey: ['look', study, question],
    queryFn: ({ signal }) =>
      call(`/api/studies/${study}/questions/${question}/look`, { signal, reply: lookSchema }),
    placeholderData: (before) => before,
  });
