import { api, type Membership, type MembershipChange } from '@yellow-thread/contract';
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './client.js';
import { queryClient } from './queryClient.js';

const keyOf = (study: number) => ['membership', study];

const membershipOptions = (study: number) =>
  queryOptions({
    queryKey: keyOf(study),
    queryFn: ({ signal }) => call(api.getMembership, { params: { study }, signal }),
  });

/** What a study keeps of the person who is signed in: where they stopped, what they were asked for. */
export const useMembership = (study: number) => useQuery(membershipOptions(study));

/** The address at which a study opens: where the person stopped; a second reading that they were asked for before. */
export function openingPath(study: number, { place, readings: [reading] }: Membership): string {
  const asked = reading && `questions/${reading.questionId}/second-reading/${reading.id}`;
  return `/studies/${study}/${place ?? asked ?? 'import'}`;
}

/** The same, looked up; null where it cannot be. */
export const findOpeningPath = (study: number): Promise<string | null> =>
  queryClient.fetchQuery({ ...membershipOptions(study), staleTime: 0 }).then(
    (membership) => openingPath(study, membership),
    () => null,
  );

export function useChangeMembership(study: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: MembershipChange) => call(api.changeMembership, { params: { study }, body }),
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
