import {
  doneSchema,
  membershipSchema,
  type Membership,
  type MembershipChange,
} from '@yellow-thread/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './client.js';

const keyOf = (study: number) => ['membership', study];
const pathOf = (study: number) => `/api/studies/${study}/membership`;

/** What a study keeps of the person who is signed in: where they stopped, what they were asked for. */
export const useMembership = (study: number) =>
  useQuery({
    queryKey: keyOf(study),
    queryFn: ({ signal }) => call(pathOf(study), { signal, reply: membershipSchema }),
  });

export function useChangeMembership(study: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: MembershipChange) =>
      call(pathOf(study), { method: 'PATCH', body, reply: doneSchema }),
    onMutate: (change) =>
      client.setQueryData(
        keyOf(study),
        (before: Membership | undefined) =>
          before && {
            ...before,
            place: change.place ?? before.place,
            hidesNextSteps: change.hidesNextSteps ?? before.hidesNextSteps,
          },
      ),
  });
}
