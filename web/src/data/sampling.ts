import { api, type AssignmentCreate, type SampleCreate } from '@yellow-thread/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange } from './queryClient.js';

export const useDrawSample = (study: number, question: number) =>
  useMutation({
    ...asChange('study', 'ledger', 'answers', 'training'),
    mutationFn: (body: SampleCreate) => call(api.drawSample, { params: { study, question }, body }),
  });

export const useSaturation = (study: number, question: number) =>
  useQuery({
    queryKey: ['saturation', study, question],
    queryFn: () => call(api.getSaturation, { params: { study, question } }),
  });

/** What was assigned in a study; to a coder, their own. */
export const useAssignments = (study: number) =>
  useQuery({
    queryKey: ['assignments', study],
    queryFn: () => call(api.listAssignments, { params: { study } }),
  });

export const useAssign = (study: number, question: number) =>
  useMutation({
    ...asChange('assignments', 'history'),
    mutationFn: (body: AssignmentCreate) =>
      call(api.assignAnswers, { params: { study, question }, body }),
  });

export const useRemoveAssignment = (study: number) =>
  useMutation({
    ...asChange('assignments', 'history'),
    mutationFn: (assignment: string) =>
      call(api.removeAssignment, { params: { study, assignment } }),
  });
