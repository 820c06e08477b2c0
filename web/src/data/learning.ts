import {
  doneSchema,
  jobSchema,
  tellingAnswersSchema,
  trainingRunSchema,
  trainingSchema,
  type ExcludeWord,
  type Train,
} from '@yellow-thread/contract';
import { skipToken, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange, FROM_DECISIONS } from './queryClient.js';

const path = (study: number, question: number) =>
  `/api/studies/${study}/questions/${question}/training`;

export const useTraining = (study: number, question: number) =>
  useQuery({
    queryKey: ['training', study, question],
    queryFn: () => call(path(study, question), { reply: trainingSchema }),
  });

export function useTrain(study: number, question: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Train) =>
      call(path(study, question), { method: 'POST', body, reply: jobSchema }),
    onSettled: () => client.invalidateQueries({ queryKey: ['training', study, question] }),
  });
}

/** An earlier run whole, for comparison. */
export const useRun = (study: number, question: number, run: number | null) =>
  useQuery({
    queryKey: ['run', study, question, run],
    queryFn:
      run === null
        ? skipToken
        : () => call(`${path(study, question)}/runs/${run}`, { reply: trainingRunSchema }),
    staleTime: Infinity,
  });

export const useReinstate = (study: number, question: number) =>
  useMutation({
    ...asChange('training', 'study', 'ledger', 'report', ...FROM_DECISIONS),
    mutationFn: (run: number) =>
      call(`${path(study, question)}/runs/${run}/reinstate`, { method: 'POST', reply: doneSchema }),
  });

const struck = (study: number) => `/api/studies/${study}/struck-words`;

/** Takes a word's effect away from the next training on. */
export const useExcludeWord = (study: number) =>
  useMutation({
    ...asChange('training', 'history'),
    mutationFn: (body: ExcludeWord) =>
      call(struck(study), { method: 'POST', body, reply: doneSchema }),
  });

export const useIncludeWord = (study: number) =>
  useMutation({
    ...asChange('training', 'history'),
    mutationFn: (id: string) =>
      call(`${struck(study)}/${id}`, { method: 'DELETE', reply: doneSchema }),
  });

/** The answers whose coding would teach most now. */
export const useTelling = (study: number, question: number, size: number) =>
  useQuery({
    queryKey: ['telling', study, question, size],
    queryFn: () =>
      call(`/api/studies/${study}/questions/${question}/telling`, {
        query: { size: String(size) },
        reply: tellingAnswersSchema,
      }),
  });
