import {
  api,
  type ChoosePassword,
  type InvitationAccept,
  type InvitationCreate,
  type Role,
  type SignIn,
} from '@yellow-thread/contract';
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call, callSession } from './client.js';
import { asChange } from './queryClient.js';

export const session = queryOptions({
  queryKey: ['session'],
  queryFn: () => callSession(api.getSession),
  staleTime: Infinity,
});

export const useSession = () => useQuery(session);

/** @param onDone called whatever page is shown by then */
function useSessionChange<Input>(
  change: (input: Input) => ReturnType<typeof callSession>,
  onDone?: () => void,
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: (now) => {
      onDone?.();
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

export const useChangeRole = (study: number) =>
  useMutation({
    ...asChange('members', 'history', 'study'),
    mutationFn: ({ member, role }: { member: number; role: Role }) =>
      call(api.changeMember, { params: { study, member }, body: { role } }),
  });

export const useRemoveMember = (study: number) =>
  useMutation({
    ...asChange('members', 'history'),
    mutationFn: (member: number) => call(api.removeMember, { params: { study, member } }),
  });

export const useInvite = (study: number) =>
  useMutation({
    ...asChange('members', 'history'),
    mutationFn: (body: InvitationCreate) => call(api.invite, { params: { study }, body }),
  });

export const useWithdrawInvitation = (study: number) =>
  useMutation({
    ...asChange('members'),
    mutationFn: (invitation: string) =>
      call(api.withdrawInvitation, { params: { study, invitation } }),
  });

export const useResetPassword = (study: number) =>
  useMutation({
    ...asChange('members'),
    mutationFn: (member: number) => call(api.resetPassword, { params: { study, member } }),
  });

/** What a link is for; asked once. */
export const useInvitation = (token: string) =>
  useQuery({
    queryKey: ['invitation', token],
    queryFn: () => call(api.openInvitation, { body: { token } }),
    staleTime: Infinity,
    retry: false,
    // who is signed in sends a token with it
    enabled: useSession().isSuccess,
  });

export const useAcceptInvitation = (onDone: () => void) =>
  useSessionChange((body: InvitationAccept) => callSession(api.acceptInvitation, { body }), onDone);

/** Where whoever is signed in is signed in. */
export const useOpenSessions = () =>
  useQuery({ queryKey: ['sessions'], queryFn: () => call(api.listSessions) });

export function useEndSession() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (session: string) => call(api.endSession, { params: { session } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['sessions'] }),
  });
}
