import { api, type CloseCodes, type DecideByModel } from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange, FROM_DECISIONS, FROM_MENTIONS } from './queryClient.js';

/** Where the answers to a question stand, and what the ways to its end would take. */
export const useWhatIsLeft = (study: number, question: number) =>
  useQuery({
    queryKey: ['left', study, question],
    queryFn: () => call(api.getWhatIsLeft, { params: { study, question } }),
  });

const followsFromClosing = ['study', 'answers', ...FROM_MENTIONS, ...FROM_DECISIONS] as const;

/** Says of codes that whatever is left does not mention them. */
export const useCloseCodes = (study: number, question: number) =>
  useMutation({
    ...asChange(...followsFromClosing),
    mutationFn: (body: CloseCodes) => call(api.closeCodes, { params: { study, question }, body }),
  });

export const useReopenCode = (study: number, question: number) =>
  useMutation({
    ...asChange(...followsFromClosing),
    mutationFn: (code: string) => call(api.reopenCode, { params: { study, question, code } }),
  });

/** Leaves what is open to the models, and draws a check of it. */
export const useDecideByModel = (study: number, question: number) =>
  useMutation({
    ...asChange('ledger', ...followsFromClosing),
    mutationFn: (body: DecideByModel) =>
      call(api.decideByModel, { params: { study, question }, body }),
  });

export const useWithdrawFromModel = (study: number, question: number) =>
  useMutation({
    ...asChange(...followsFromClosing),
    mutationFn: () => call(api.withdrawFromModel, { params: { study, question } }),
  });
