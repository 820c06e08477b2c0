import { api } from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange } from './queryClient.js';

/** Answers that somebody was helped with here: who settles one has seen what may fit. */
const helped = new Set<number>();
export const wasHelpedWith = (response: number): boolean => helped.has(response);

export const useAnswerHelp = (study: number, response: number) =>
  useQuery({
    queryKey: ['answer-help', study, response],
    queryFn: async ({ signal }) => {
      const help = await call(api.helpWithAnswer, { params: { study, response }, signal });
      helped.add(response);
      return help;
    },
  });

export const useGlossary = (study: number) =>
  useQuery({
    queryKey: ['glossary', study],
    queryFn: () => call(api.getGlossary, { params: { study } }),
  });

export const usePutTerm = (study: number) =>
  useMutation({
    ...asChange('glossary', 'answer-help', 'history'),
    mutationFn: ({ id, ...body }: { id: string; term: string; meaning: string }) =>
      call(api.putGlossaryTerm, { params: { study, term: id }, body }),
  });

export const useRemoveTerm = (study: number) =>
  useMutation({
    ...asChange('glossary', 'answer-help', 'history'),
    mutationFn: (id: string) => call(api.removeGlossaryTerm, { params: { study, term: id } }),
  });
