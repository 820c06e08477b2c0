import { api, type NetworkFormat, type Rule } from '@yellow-thread/contract';
import { useQuery } from '@tanstack/react-query';
import { addressOf, call } from './client.js';

export const useLook = (study: number, question: number) =>
  useQuery({
    queryKey: ['look', study, question],
    queryFn: ({ signal }) => call(api.lookAtQuestion, { params: { study, question }, signal }),
    placeholderData: (before) => before,
  });

/** What the people of a rule say more and less often than all others; nothing is asked without a rule. */
export const useContrast = (study: number, question: number, rule: Rule | null) =>
  useQuery({
    queryKey: ['look', study, question, 'contrast', rule],
    enabled: rule !== null,
    queryFn: ({ signal }) =>
      call(api.contrastWords, {
        params: { study, question },
        query: { of: JSON.stringify(rule) },
        signal,
      }),
  });

/** @param query hidden words and the variable, as they stand in the address of the API */
export const useWordNetwork = (study: number, question: number, query: string) =>
  useQuery({
    queryKey: ['look', study, question, 'network', query],
    queryFn: ({ signal }) =>
      call(api.getWordNetwork, { params: { study, question }, search: query, signal }),
    placeholderData: (before) => before,
  });

export const networkFileAddress = (
  study: number,
  question: number,
  format: NetworkFormat,
  query: string,
) => addressOf(api.downloadWordNetwork, { params: { study, question, format }, search: query });
