import {
  behindSchema,
  lookSchema,
  reportSchema,
  type BaseKind,
  type CorrectionChoice,
} from '@yellow-thread/contract';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { call, withQuery } from './client.js';

export interface ReportChoice {
  by: string;
  base: BaseKind;
  weighted: boolean;
  test: CorrectionChoice;
}

const pathOf = (study: number, question: number) =>
  `/api/studies/${study}/questions/${question}/report`;

export const useReport = (study: number, question: number, choice: ReportChoice) =>
  useQuery({
    queryKey: ['report', study, question, choice],
    queryFn: ({ signal }) =>
      call(pathOf(study, question), { query: { ...choice }, signal, reply: reportSchema }),
    placeholderData: (before) => before,
  });

export const reportCsvAddress = (study: number, question: number, choice: ReportChoice) =>
  withQuery(`${pathOf(study, question)}.csv`, { ...choice });

/** A row and a column of the cloth: what a number counts. */
export interface Cell {
  kind: 'theme' | 'code';
  id: string;
  by: string;
  column: string;
}

export const useAnswersBehind = (study: number, question: number, cell: Cell) =>
  useInfiniteQuery({
    queryKey: ['behind', study, question, cell],
    queryFn: ({ pageParam, signal }) =>
      call(`${pathOf(study, question)}/answers`, {
        query: {
          [cell.kind]: cell.id,
          by: cell.by,
          column: cell.column,
          after: pageParam,
          limit: 50,
        },
        signal,
        reply: behindSchema,
      }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next ?? undefined,
  });

export const useLook = (study: number, question: number, aside: string) =>
  useQuery({
    queryKey: ['look', study, question, aside],
    queryFn: ({ signal }) =>
      call(`/api/studies/${study}/questions/${question}/look`, {
        query: { aside },
        signal,
        reply: lookSchema,
      }),
    placeholderData: (before) => before,
  });
