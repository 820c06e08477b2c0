import { api, type CodeHits } from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange, FROM_DECISIONS, FROM_MENTIONS } from './queryClient.js';

/** Every place where the words of a filter stand. */
export const useHits = (study: number, question: number, query: string) =>
  useQuery({
    queryKey: ['hits', study, question, query],
    queryFn: ({ signal }) =>
      call(api.getHits, { params: { study, question }, search: query, signal }),
  });

export const useCodeHits = (study: number, question: number) =>
  useMutation({
    ...asChange('study', 'training', 'answers', ...FROM_MENTIONS, ...FROM_DECISIONS),
    mutationFn: (body: CodeHits) => call(api.codeHits, { params: { study, question }, body }),
  });
