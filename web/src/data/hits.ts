import { codedHitsSchema, hitsSchema, type CodeHits } from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange, FROM_DECISIONS, FROM_MENTIONS } from './queryClient.js';

const path = (study: number, question: number) =>
  `/api/studies/${study}/questions/${question}/hits`;

/** Every place where the words of a filter stand. */
export const useHits = (study: number, question: number, query: string) =>
  useQuery({
    queryKey: ['hits', study, question, query],
    queryFn: ({ signal }) =>
      call(`${path(study, question)}?${query}`, { signal, reply: hitsSchema }),
  });

export const useCodeHits = (study: number, question: number) =>
  useMutation({
    ...asChange('study', 'training', 'answers', ...FROM_MENTIONS, ...FROM_DECISIONS),
    mutationFn: (body: CodeHits) =>
      call(path(study, question), { method: 'POST', body, reply: codedHitsSchema }),
  });
