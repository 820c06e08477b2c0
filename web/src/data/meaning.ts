import { api } from '@yellow-thread/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './client.js';
import { isUnderWay } from './sheets.js';

const POLL_MS = 1000;
const meaningKey = (study: number) => ['meaning', study];

/** How far the answers are read for meaning; asked again while they are being read. */
export const useMeaning = (study: number) =>
  useQuery({
    queryKey: meaningKey(study),
    queryFn: () => call(api.getMeaning, { params: { study } }),
    refetchInterval: ({ state }) => (isUnderWay(state.data?.job) ? POLL_MS : false),
  });

/** Has the answers read for meaning, from where it was stopped. */
export function useReadForMeaning(study: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => call(api.readForMeaning, { params: { study } }),
    onSettled: () => client.invalidateQueries({ queryKey: meaningKey(study) }),
  });
}

export function useStopReading(study: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (job: number) => call(api.cancelJob, { params: { study, job } }),
    onSettled: () => client.invalidateQueries({ queryKey: meaningKey(study) }),
  });
}

/** Open answers that are near in meaning to what the codebook says of a code. */
export const useNearestAnswers = (
  study: number,
  { code, question, limit }: { code: string; question?: number; limit: number },
) =>
  useQuery({
    queryKey: ['nearest', study, code, question ?? null, limit],
    queryFn: () =>
      call(api.getNearestAnswers, {
        params: { study, code },
        query: { limit: String(limit), ...(question && { question: String(question) }) },
      }),
  });
