import { api, problemSchema, type LeftOutOfCopy, type ReplyOf } from '@yellow-thread/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { download } from '../lib/download.js';
import { ProblemError } from '../lib/problem.js';
import { addressOf, pathOf, send } from './client.js';
import { refresh } from './queryClient.js';

/** How often it is told how much has come: each piece would draw the page anew. */
const TOLD_EVERY_MS = 200;

/**
 * Saves a study as a file. It is put together by the browser, on disk where it is large, while `bytes` of it have come;
 * what the server refuses is told in a sentence, which a link to the file could not.
 */
export function useSaveCopy(study: number) {
  const [bytes, setBytes] = useState(0);
  const away = useRef(new AbortController());
  const save = useMutation({
    mutationFn: async (without: readonly LeftOutOfCopy[]) => {
      setBytes(0);
      away.current = new AbortController();
      const { signal } = away.current;
      const search = new URLSearchParams(without.map((one) => ['without', one])).toString();
      try {
        const reply = await fetch(pathOf(api.saveStudyFile, { params: { study }, search }), {
          signal,
        });
        if (!reply.ok || !reply.body)
          throw new ProblemError(reply.status, problemSchema.parse(await reply.json()));
        const counted = reply.body.pipeThrough(countingBytes(setBytes));
        download(await new Response(counted).blob(), fileNameIn(reply.headers));
      } catch (error) {
        if (!signal.aborted) throw error;
      }
    },
  });
  return { ...save, bytes, cancel: () => away.current.abort() };
}

/** Passes everything on, and tells how much it was so far. */
function countingBytes(tell: (bytes: number) => void): TransformStream<Uint8Array, Uint8Array> {
  let [bytes, told] = [0, 0];
  return new TransformStream({
    transform(piece, controller) {
      bytes += piece.byteLength;
      if (performance.now() - told > TOLD_EVERY_MS) {
        told = performance.now();
        tell(bytes);
      }
      controller.enqueue(piece);
    },
  });
}

/** What a reply calls its file. */
const fileNameIn = (headers: Headers): string =>
  /filename="?([^";]+)/u.exec(headers.get('content-disposition') ?? '')?.[1] ?? 'study.zip';

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
