import { api, type MentionEdit } from '@yellow-thread/contract';
import { useMutation } from '@tanstack/react-query';
import { call } from './client.js';
import { asChange } from './queryClient.js';

/** Changes one mention from outside the ledger. */
export const useEditMention = (study: number) =>
  useMutation({
    ...asChange('mentions-of-code', 'answers', 'answers-of', 'behind', 'write-up', 'history'),
    mutationFn: ({ id, edit }: { id: string; edit: MentionEdit }) =>
      call(api.editMention, { params: { study, mention: id }, body: edit }),
  });
