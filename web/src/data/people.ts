import { api, type ChoosePassword, type SignIn } from '@yellow-thread/contract';
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call, callSession } from './client.js';
import { asChange } from './queryClient.js';

export const session = queryOptions({
  queryKey: ['session'],
  queryFn: () => callSession(api.getSession),
  staleTime: Infinity,
});

export const useSession = () => useQuery(session);

function useSessionChange<Input>(change: (input: Input) => ReturnType<typeof callSession>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: (now) => {
      client.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== session.queryKey[0] });
      client.setQueryData(session.queryKey, now);
    },
  });
}

export const useSignIn = () =>
  useSessionChange((body: SignIn) => callSession(api.signIn, { body }));

export const useEnterDemo = () => useSessionChange(() => callSession(api.enterDemo));

export const useChoosePassword = () =>
  useSessionChange((body: ChoosePassword) => callSession(api.choosePassword, { body }));

export const useSignOut = () =>
  useSessionChange(async () => {
    await call(api.signOut);
    return callSession(api.getSession);
  });

/** Who works in a study. */
export const useMembers = (study: number) =>
  useQuery({
    queryKey: ['members', study],
    queryFn: () => call(api.listMembers, { params: { study } }),
    staleTime: 60_000,
  });

export const useAddMember = (study: number) =>
  useMutation({
    ...asChange('members'),
    mutationFn: (name: string) => call(api.addMember, { params: { study }, body: { name } }),
  });

export const useGivePassword = (study: number) =>
  useMutation({
    ...asChange('members'),
    mutationFn: (member: number) => call(api.givePassword, { params: { study, member } }),
  });

export const useRemoveMember = (study: number) =>
  useMutation({
    ...asChange('members'),
    mutationFn: (member: number) => call(api.removeMember, { params: { study, member } }),
  });
