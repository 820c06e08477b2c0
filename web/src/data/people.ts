import {
  doneSchema,
  membersSchema,
  oneTimePasswordSchema,
  type ChoosePassword,
  type SignIn,
} from '@yellow-thread/contract';
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call, callSession } from './client.js';
import { asChange } from './queryClient.js';

export const session = queryOptions({
  queryKey: ['session'],
  queryFn: () => callSession('/api/session'),
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
  useSessionChange((body: SignIn) => callSession('/api/session', { method: 'POST', body }));

export const useEnterDemo = () =>
  useSessionChange(() => callSession('/api/session/demo', { method: 'POST' }));

export const useChoosePassword = () =>
  useSessionChange((body: ChoosePassword) => callSession('/api/password', { method: 'PUT', body }));

export const useSignOut = () =>
  useSessionChange(async () => {
    await call('/api/session', { method: 'DELETE', reply: doneSchema });
    return callSession('/api/session');
  });

const membersPath = (study: number) => `/api/studies/${study}/members`;

/** Who works in a study. */
export const useMembers = (study: number) =>
  useQuery({
    queryKey: ['members', study],
    queryFn: () => call(membersPath(study), { reply: membersSchema }),
    staleTime: 60_000,
  });

export const useAddMember = (study: number) =>
  useMutation({
    ...asChange('members'),
    mutationFn: (name: string) =>
      call(membersPath(study), { method: 'POST', body: { name }, reply: oneTimePasswordSchema }),
  });

export const useGivePassword = (study: number) =>
  useMutation({
    ...asChange('members'),
    mutationFn: (member: number) =>
      call(`${membersPath(study)}/${member}/password`, {
        method: 'POST',
        reply: oneTimePasswordSchema,
      }),
  });

export const useRemoveMember = (study: number) =>
  useMutation({
    ...asChange('members'),
    mutationFn: (member: number) =>
      call(`${membersPath(study)}/${member}`, { method: 'DELETE', reply: doneSchema }),
  });
