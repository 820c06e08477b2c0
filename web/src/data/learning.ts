import { jobSchema, trainingSchema } from '@yellow-thread/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './client.js';

export const useTraining = (study: number, question: number) =>
  useQuery({
    queryKey: ['training', study, question],
    queryFn: () =>
      call(`/api/studies/${study}/questions/${question}/training`, { reply: trainingSchema }),
  });

export function useTrain(study: number, question: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () =>
      call(`/api/studies/${study}/questions/${question}/training`, {
        method: 'POST',
        reply: jobSchema,
      }),
    onSettled: () => client.invalidateQueries({ queryKey: ['training', study, question] }),
  });
}
