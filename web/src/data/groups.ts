import { api, type GroupFields, type Rule } from '@yellow-thread/contract';
import type { RuleNames } from '@yellow-thread/core/groups';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call } from './client.js';
import { useCodebook } from './codebook.js';
import { asChange, queryClient, keptWithin } from './queryClient.js';
import { restrict } from './restriction.js';
import { useImports } from './sheets.js';
import { useStudy } from './studies.js';

export const useGroups = (study: number) =>
  useQuery({
    queryKey: ['groups', study],
    queryFn: () => call(api.listGroups, { params: { study } }),
  });

/** How many a rule picks, while it is being built. */
export const useGroupSize = (study: number, rule: Rule, groupId: string) =>
  useQuery({
    queryKey: ['group-size', study, groupId, rule],
    queryFn: ({ signal }) =>
      call(api.sizeOfGroup, { params: { study }, body: { rule, groupId }, signal }),
    placeholderData: keptWithin(study, groupId),
    retry: false,
  });

/** What a group decides: who is counted and listed. */
const fromGroups = asChange(
  'groups',
  'group-size',
  'report',
  'behind',
  'ledger',
  'study',
  'respondents',
  'together',
  'write-up',
  'history',
  'variable',
  'respondent-rows',
);

export const usePutGroup = (study: number) =>
  useMutation({
    ...fromGroups,
    mutationFn: ({ id, ...body }: GroupFields & { id: string }) =>
      call(api.putGroup, { params: { study, group: id }, body }),
  });

export const useRemoveGroup = (study: number) =>
  useMutation({
    ...fromGroups,
    mutationFn: (id: string) => call(api.removeGroup, { params: { study, group: id } }),
  });

/** Restricts the study to a group, or to nobody in particular: everything shown of it is fetched again. */
export function restrictTo(study: number, group: string | null): void {
  restrict(study, group);
  // nothing that was counted for others may stand for a moment under the new name
  void queryClient.resetQueries({
    predicate: ({ queryKey: [resource, id] }) =>
      id === study && resource !== 'groups' && resource !== 'imports' && resource !== 'variable',
  });
}

/** What the things that a rule may speak of are called; null until all of that is known. */
export function useRuleNames(study: number): RuleNames | null {
  const detail = useStudy(study).data;
  const codebook = useCodebook(study).data;
  const imports = useImports(study).data;
  const groups = useGroups(study).data;
  return useMemo(() => {
    if (!detail || !codebook || !imports || !groups) return null;
    const named = <Id>(list: readonly { id: Id; name: string }[]) => {
      const names = new Map(list.map(({ id, name }) => [id, name]));
      return (id: Id) => names.get(id) ?? null;
    };
    return {
      variable: named(detail.variables),
      question: named(detail.questions.map(({ id, label }) => ({ id, name: label }))),
      code: named(codebook.codes),
      theme: named(codebook.themes),
      import: named(
        imports.imports.map(({ id, wave, fileName }) => ({ id, name: wave || fileName })),
      ),
      group: named(groups.groups),
    };
  }, [detail, codebook, imports, groups]);
}
