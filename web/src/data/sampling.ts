import { sampleDrawnSchema, saturationSchema, type SampleCreate } from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange } from './queryClient.js';

const path = (study: number, question: number) => `/api/studies/${study}/questions/${question}`;

export const useDrawSample = (study: number, question: number) =>
  useMutation({
    ...asChange('study', 'ledger', 'answers', 'training'),
    mutationFn: (body: SampleCreate) =>
      call(`${path(study, question)}/samples`, { method: 'POST', body, reply: sampleDrawnSchema }),
  });

export const useSaturation = (study: number, question: number) =>
  useQuery({
    queryKey: ['saturation', study, question],
    queryFn: () => call(`${path(study, question)}/saturation`, { reply: saturationSchema }),
  });
