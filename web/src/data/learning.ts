import { api, type ExcludeWord, type Train } from '@yellow-thread/contract';
import { skipToken, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange, FROM_DECISIONS } from './queryClient.js';

export const useTraining = (study: number, question: number) =>
  useQuery({
    queryKey: ['training', study, question],
    queryFn: () => call(api.getTraining, { params: { study, question } }),
  });

export function useTrain(study: number, question: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Train) => call(api.train, { params: { study, question }, body }),
    onSettled: () => client.invalidateQueries({ queryKey: ['training', study, question] }),
  });
}

/** An earlier run whole, for comparison. */
export const useRun = (study: number, question: number, run: number | null) =>
  useQuery({
    queryKey: ['run', study, question, run],
    queryFn:
      run === null ? skipToken : () => call(api.getRun, { params: { study, question, run } }),
    staleTime: Infinity,
  });

export const useReinstate = (study: number, question: number) =>
  useMutation({
    ...asChange('training', 'study', 'ledger', 'report', ...FROM_DECISIONS),
    mutationFn: (run: number) => call(api.reinstateRun, { params: { study, question, run } }),
  });

/** Takes a word's effect away from the next training on. */
export const useExcludeWord = (study: number) =>
  useMutation({
    ...asChange('training', 'history'),
    mutationFn: (body: ExcludeWord) => call(api.excludeWord, { params: { study }, body }),
  });

export const useIncludeWord = (study: number) =>
  useMutation({
    ...asChange('training', 'history'),
    mutationFn: (id: string) => call(api.includeWord, { params: { study, id } }),
  });

/** The answers whose coding would teach most now. */
export const useTelling = (study: number, question: number, size: number) =>
  useQuery({
    queryKey: ['telling', study, question, size],
    queryFn: () =>
      call(api.getTellingAnswers, { params: { study, question }, query: { size: String(size) } }),
  });
