import {
  closedCodesSchema,
  decidedByModelSchema,
  doneSchema,
  whatIsLeftSchema,
  type CloseCodes,
  type DecideByModel,
} from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange, FROM_DECISIONS, FROM_MENTIONS } from './queryClient.js';

const pathOf = (study: number, question: number) =>
  `/api/studies/${study}/questions/${question}/left`;

/** Where the answers to a question stand, and what the ways to its end would take. */
export const useWhatIsLeft = (study: number, question: number) =>
  useQuery({
    queryKey: ['left', study, question],
    queryFn: () => call(pathOf(study, question), { reply: whatIsLeftSchema }),
  });

const followsFromClosing = ['study', 'answers', ...FROM_MENTIONS, ...FROM_DECISIONS] as const;

/** Says of codes that whatever is left does not mention them. */
export const useCloseCodes = (study: number, question: number) =>
  useMutation({
    ...asChange(...followsFromClosing),
    mutationFn: (body: CloseCodes) =>
      call(`${pathOf(study, question)}/closed`, { method: 'POST', body, reply: closedCodesSchema }),
  });

export const useReopenCode = (study: number, question: number) =>
  useMutation({
    ...asChange(...followsFromClosing),
    mutationFn: (code: string) =>
      call(`${pathOf(study, question)}/closed/${code}`, { method: 'DELETE', reply: doneSchema }),
  });

/** Leaves what is open to the models, and draws a check of it. */
export const useDecideByModel = (study: number, question: number) =>
  useMutation({
    ...asChange('ledger', ...followsFromClosing),
    mutationFn: (body: DecideByModel) =>
      call(`${pathOf(study, question)}/models`, {
        method: 'POST',
        body,
        reply: decidedByModelSchema,
      }),
  });

export const useWithdrawFromModel = (study: number, question: number) =>
  useMutation({
    ...asChange(...followsFromClosing),
    mutationFn: () =>
      call(`${pathOf(study, question)}/models`, { method: 'DELETE', reply: doneSchema }),
  });
