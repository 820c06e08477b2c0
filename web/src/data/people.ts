import { doneSchema, type SignIn } from '@yellow-thread/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call, callSession } from './client.js';

const session = { queryKey: ['session'], queryFn: () => callSession('/api/session') };

export const useSession = () => useQuery({ ...session, staleTime: Infinity });

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
  useSessionChange((password: string) =>
    callSession('/api/password', { method: 'PUT', body: { password } }),
  );

export const useSignOut = () =>
  useSessionChange(async () => {
    await call('/api/session', { method: 'DELETE', reply: doneSchema });
    return callSession('/api/session');
  });
