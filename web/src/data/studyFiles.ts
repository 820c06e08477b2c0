import { api, problemSchema, type LeftOutOfCopy, type ReplyOf } from '@yellow-thread/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ProblemError } from '../lib/problem.js';
import { addressOf, pathOf, send } from './client.js';
import { refresh } from './queryClient.js';

export const studyFileAddress = (study: number, without: readonly LeftOutOfCopy[]): string =>
  addressOf(api.saveStudyFile, {
    params: { study },
    search: new URLSearchParams(without.map((one) => ['without', one])).toString(),
  });

/** Sends a study file to an operation that takes one; `share` of it is sent. */
function useStudyFile<Endpoint extends SendsStudyFile>(
  endpoint: Endpoint,
  address: string,
  onDone: () => unknown,
) {
  const [share, setShare] = useState(0);
  const sent = useMutation({
    mutationFn: async (file: File): Promise<ReplyOf<Endpoint> | null> => {
      setShare(0);
      const body = new FormData();
      body.append('file', file);
      const { status, received } = await send(address, body, { onProgress: setShare });
      if (status === 0) return null;
      if (status === 200) return endpoint.reply.parse(received) as ReplyOf<Endpoint>;
      throw new ProblemError(status, problemSchema.parse(received));
    },
    onSuccess: onDone,
  });
  return { ...sent, share };
}
type SendsStudyFile =
  typeof api.openStudyFile | typeof api.previewMerge | typeof api.mergeStudyFile;

/** Opens a saved copy as a new study. */
export function useOpenCopy() {
  const client = useQueryClient();
  return useStudyFile(api.openStudyFile, addressOf(api.openStudyFile, {}), () =>
    client.invalidateQueries({ queryKey: ['studies'] }),
  );
}

/** What bringing a copy into the study would do. */
export const usePreviewMerge = (study: number) =>
  useStudyFile(api.previewMerge, pathOf(api.previewMerge, { params: { study } }), () => null);

/** Brings a copy's coding into the study: whatever is shown of it may be other now. */
export const useMerge = (study: number) =>
  useStudyFile(api.mergeStudyFile, pathOf(api.mergeStudyFile, { params: { study } }), () =>
    refresh(({ queryKey }) => queryKey[0] !== 'session'),
  );
