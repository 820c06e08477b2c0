import { api, type ClusterDecision, type NetworkFormat, type Rule } from '@yellow-thread/contract';
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { addressOf, call } from './client.js';
import { asChange, keptWithin } from './queryClient.js';

export const useLook = (study: number, question: number) =>
  useQuery({
    queryKey: ['look', study, question],
    queryFn: ({ signal }) => call(api.lookAtQuestion, { params: { study, question }, signal }),
    placeholderData: keptWithin(study, question),
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
    placeholderData: keptWithin(study, question),
  });

export const networkFileAddress = (
  study: number,
  question: number,
  format: NetworkFormat,
  query: string,
) => addressOf(api.downloadWordNetwork, { params: { study, question, format }, search: query });

/** Answers gathered by likeness. @param k how many clusters; null for as many as fit */
export const useAnswerClusters = (study: number, question: number, k: number | null) =>
  useQuery({
    queryKey: ['look', study, question, 'clusters', k],
    queryFn: ({ signal }) =>
      call(api.getAnswerClusters, {
        params: { study, question },
        query: { k: k ?? undefined },
        signal,
      }),
    placeholderData: keptWithin(study, question),
  });

/** Has many answers gathered by a job. */
export function useGatherAnswers(study: number, question: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (k: number | null) =>
      call(api.gatherAnswers, { params: { study, question }, query: { k: k ?? undefined } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['look', study, question, 'clusters'] }),
  });
}

export const useDecideCluster = (study: number, question: number) =>
  useMutation({
    ...asChange('look', 'codebook', 'history'),
    mutationFn: ({ id, ...body }: ClusterDecision & { id: string }) =>
      call(api.decideCluster, { params: { study, question, cluster: id }, body }),
  });

export const useBringClusterBack = (study: number, question: number) =>
  useMutation({
    ...asChange('look', 'history'),
    mutationFn: (id: string) =>
      call(api.bringClusterBack, { params: { study, question, cluster: id } }),
  });

/** The few answers that stand for most: of everybody, of those whom a rule picks, or of a filter of the ledger. */
export const useRepresentatives = (
  study: number,
  question: number,
  { rule, filter }: { rule: Rule | null; filter: string },
) =>
  useQuery({
    queryKey: ['look', study, question, 'representatives', rule, filter],
    queryFn: ({ signal }) =>
      call(api.getRepresentatives, {
        params: { study, question },
        query: {
          of: rule ? JSON.stringify(rule) : undefined,
          filter: filter === '' ? undefined : filter,
        },
        signal,
      }),
    placeholderData: keptWithin(study, question),
  });

const AT_ONCE = 50;
/** Some answers by their ids, a page at a time. */
export const useAnswersOf = (study: number, question: number, ids: readonly number[]) =>
  useInfiniteQuery({
    queryKey: ['answers-of', study, question, ids],
    initialPageParam: 0,
    enabled: ids.length > 0,
    queryFn: ({ pageParam, signal }) =>
      call(api.getAnswers, {
        params: { study, question },
        query: { ids: ids.slice(pageParam, pageParam + AT_ONCE).join(',') },
        signal,
      }),
    getNextPageParam: (_, __, before) =>
      before + AT_ONCE < ids.length ? before + AT_ONCE : undefined,
  });
