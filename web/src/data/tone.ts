import { api, type ToneCheckFields } from '@yellow-thread/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { addressOf, call } from './client.js';
import { asChange, keptWithin } from './queryClient.js';

/** How the tone of a question's lines stands. */
export const useTone = (study: number, question: number) =>
  useQuery({
    queryKey: ['tone', study, question],
    queryFn: ({ signal }) =>
      call(api.getTone, { params: { study, question }, query: { limit: '1' }, signal }),
    placeholderData: keptWithin(study, question),
  });

/** The next few lines to be checked: they stay as they are while one checks them. */
export const useToneBatch = (study: number, question: number, limit: number) =>
  useQuery({
    queryKey: ['tone-batch', study, question, limit],
    queryFn: ({ signal }) =>
      call(api.getTone, { params: { study, question }, query: { limit: String(limit) }, signal }),
    staleTime: Infinity,
    gcTime: 0,
  });

export const useCheckTone = (study: number, question: number) =>
  useMutation({
    ...asChange('tone', 'tone-report', 'history'),
    mutationFn: (body: ToneCheckFields) =>
      call(api.checkTone, { params: { study, question, check: crypto.randomUUID() }, body }),
  });

export const useDrawToneSample = (study: number, question: number) =>
  useMutation({
    ...asChange('tone', 'tone-batch', 'tone-report'),
    mutationFn: (size: number) =>
      call(api.drawToneSample, { params: { study, question }, body: { size } }),
  });

export function useTrainTone(study: number, question: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => call(api.trainTone, { params: { study, question } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['tone', study] }),
  });
}

const queryOf = (by: string) => ({ by: by === '' ? undefined : by });
export const useToneReport = (study: number, question: number, by: string) =>
  useQuery({
    queryKey: ['tone-report', study, question, by],
    queryFn: ({ signal }) =>
      call(api.getToneReport, { params: { study, question }, query: queryOf(by), signal }),
    placeholderData: keptWithin(study, question),
  });
export const toneFileAddress = (study: number, question: number, by: string) =>
  addressOf(api.downloadToneReport, { params: { study, question }, query: queryOf(by) });
