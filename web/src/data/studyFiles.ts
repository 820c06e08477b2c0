import {
  api,
  problemSchema,
  studySummarySchema,
  type LeftOutOfCopy,
  type StudySummary,
} from '@yellow-thread/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ProblemError } from '../lib/problem.js';
import { addressOf, send } from './client.js';

export const studyFileAddress = (study: number, without: readonly LeftOutOfCopy[]): string =>
  addressOf(api.saveStudyFile, {
    params: { study },
    search: new URLSearchParams(without.map((one) => ['without', one])).toString(),
  });

/** Opens a saved copy as a new study; `share` of it is sent. */
export function useOpenCopy() {
  const [share, setShare] = useState(0);
  const client = useQueryClient();
  const open = useMutation({
    mutationFn: async (file: File): Promise<StudySummary | null> => {
      setShare(0);
      const body = new FormData();
      body.append('file', file);
      const { status, received } = await send(addressOf(api.openStudyFile, {}), body, {
        onProgress: setShare,
      });
      if (status === 0) return null;
      if (status === 200) return studySummarySchema.parse(received);
      throw new ProblemError(status, problemSchema.parse(received));
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['studies'] }),
  });
  return { ...open, share };
}
