import { api, type SampleCreate } from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange } from './queryClient.js';

export const useDrawSample = (study: number, question: number) =>
  useMutation({
    ...asChange('study', 'ledger', 'answers', 'training'),
    mutationFn: (body: SampleCreate) => call(api.drawSample, { params: { study, question }, body }),
  });

export const useSaturation = (study: number, question: number) =>
  useQuery({
    queryKey: ['saturation', study, question],
    queryFn: () => call(api.getSaturation, { params: { study, question } }),
  });
