import {
  api,
  type BackgroundValue,
  type Band,
  type ByRule,
  type RespondentRow,
  type Rule,
  type StudyChange,
  type VariableDetail,
} from '@yellow-thread/contract';
import { useMutation, useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange, holdFetches, keptWithin } from './queryClient.js';

export interface RespondentOrder {
  sort: 'id' | 'order' | number;
  descending: boolean;
  words: string;
  /** Only those whom it picks; null for everybody. */
  rule: Rule | null;
}

/** Ids of the respondents of a study, in the order asked for. */
export const useRespondentIds = (study: number, order: RespondentOrder) =>
  useQuery({
    queryKey: ['respondents', study, order],
    queryFn: async ({ signal }) => {
      const { rule, ...rest } = order;
      const query = { ...rest, ...(rule && { rule: JSON.stringify(rule) }) };
      return (await call(api.listRespondents, { params: { study }, query, signal })).ids;
    },
    placeholderData: keptWithin(study),
  });

/** Respondents are fetched in stretches of so many. */
export const STRETCH = 100;

/**
 * Respondents of some stretches, by id.
 *
 * @param isWanted whether they are fetched; otherwise, what is known already
 */
export const useRespondentRows = (
  study: number,
  ids: readonly number[],
  stretches: readonly number[],
  isWanted: boolean,
): Map<number, RespondentRow> =>
  useQueries({
    queries: stretches.map((stretch) => {
      const its = ids.slice(stretch * STRETCH, (stretch + 1) * STRETCH);
      return {
        queryKey: ['respondent-rows', study, its],
        enabled: isWanted && its.length > 0,
        queryFn: async ({ signal }: { signal: AbortSignal }) => {
          const query = { ids: its.join(',') };
          return (await call(api.readRespondents, { params: { study }, query, signal }))
            .respondents;
        },
      };
    }),
    combine: byId,
  });

const byId = (stretches: { data: RespondentRow[] | undefined }[]) =>
  new Map(stretches.flatMap(({ data }) => data ?? []).map((one) => [one.id, one]));

/** Changes one value of one respondent: drawn at once. */
export function useChangeBackground(study: number) {
  const client = useQueryClient();
  const queryKey = ['respondent-rows', study];
  return useMutation({
    ...asChange('respondent-rows', 'variable', 'report', 'behind', 'ledger', 'study'),
    mutationFn: ({
      respondent,
      ...body
    }: {
      respondent: number;
      variableId: number;
      value: BackgroundValue | null;
    }) => call(api.changeBackground, { params: { study, respondent }, body }),
    onMutate: ({ respondent, variableId, value }) => {
      holdFetches(queryKey);
      client.setQueriesData<RespondentRow[]>({ queryKey }, (stretch) =>
        stretch?.map((one) =>
          one.id === respondent
            ? { ...one, background: { ...one.background, [variableId]: value } }
            : one,
        ),
      );
    },
  });
}

const variableKey = (study: number, id: number) => ['variable', study, id];

export const useVariable = (study: number, id: number) =>
  useQuery({
    queryKey: variableKey(study, id),
    queryFn: () => call(api.getVariable, { params: { study, variable: id } }),
  });

const variableChange = asChange(
  'study',
  'variable',
  'report',
  'respondents',
  'respondent-rows',
  'history',
);

export const useRenameVariable = (study: number, id: number) =>
  useMutation({
    ...variableChange,
    mutationFn: (name: string) =>
      call(api.renameVariable, { params: { study, variable: id }, body: { name } }),
  });

export const useRemoveVariable = (study: number, id: number) =>
  useMutation({
    ...variableChange,
    mutationFn: () => call(api.removeVariable, { params: { study, variable: id } }),
  });

/** Changes what categories are called and their order: drawn at once. */
export function useChangeCategories(study: number, id: number) {
  const client = useQueryClient();
  const queryKey = variableKey(study, id);
  return useMutation({
    ...variableChange,
    mutationFn: (categories: VariableDetail['categories']) =>
      call(api.changeCategories, {
        params: { study, variable: id },
        body: { categories: categories.map(({ value, label }) => ({ value, label })) },
      }),
    onMutate: (categories) => {
      holdFetches(queryKey);
      client.setQueryData<VariableDetail>(
        queryKey,
        (variable) => variable && { ...variable, categories },
      );
    },
  });
}

/** Makes a variable of categories that people are assigned to by rules. */
export const useAddByRule = (study: number) =>
  useMutation({
    ...variableChange,
    mutationFn: (body: { name: string; by: ByRule }) =>
      call(api.addVariable, { params: { study }, body }),
  });

export const useAddBands = (study: number, id: number) =>
  useMutation({
    ...variableChange,
    mutationFn: (body: { name: string; bands: Band[] }) =>
      call(api.addBands, { params: { study, variable: id }, body }),
  });

export const useChangeStudy = (study: number) =>
  useMutation({
    ...asChange('study', 'look', 'ledger', 'training', 'report'),
    mutationFn: (body: StudyChange) => call(api.changeStudy, { params: { study }, body }),
  });

export const useChangeNoAnswers = (study: number) =>
  useMutation({
    ...asChange('study', 'ledger', 'training', 'report'),
    mutationFn: (noAnswers: string[]) =>
      call(api.changeNoAnswers, { params: { study }, body: { noAnswers } }),
  });

export const useChangeQuestion = (study: number) =>
  useMutation({
    ...asChange('study', 'report'),
    mutationFn: ({ id, ...body }: { id: number; label?: string; wording?: string }) =>
      call(api.changeQuestion, { params: { study, question: id }, body }),
  });

export const useOrderQuestions = (study: number) =>
  useMutation({
    ...asChange('study'),
    mutationFn: (questions: number[]) =>
      call(api.orderQuestions, { params: { study }, body: { questions } }),
  });
