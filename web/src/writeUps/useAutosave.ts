import type { WriteUp, WriteUpContent } from '@yellow-thread/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useSaveWriteUp } from '../data/writeUps.js';

const PAUSE = 700;

/** Saves what is written a moment after the last stroke, each time on the version that was saved before. */
export function useAutosave(study: number, writeUp: WriteUp) {
  const { id } = writeUp;
  const save = useSaveWriteUp(study);
  const client = useQueryClient();
  const version = useRef(writeUp.version);
  const waiting = useRef<{ name: string; content: WriteUpContent } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const underWay = useRef<Promise<unknown>>(Promise.resolve());
  const [isWaiting, setIsWaiting] = useState(false);
  const { mutateAsync } = save;

  const flush = useCallback((): Promise<unknown> => {
    clearTimeout(timer.current);
    underWay.current = underWay.current.then(async () => {
      const next = waiting.current;
      if (!next) return;
      waiting.current = null;
      try {
        const saved = await mutateAsync({ id, version: version.current, ...next });
        version.current = saved.version;
        setIsWaiting(waiting.current !== null);
      } catch {
        // said where everything that is not saved is said; what comes next is tried again
        waiting.current ??= next;
      }
    });
    return underWay.current;
  }, [mutateAsync, id]);

  const keep = useCallback(
    (next: { name: string; content: WriteUpContent }) => {
      waiting.current = next;
      setIsWaiting(true);
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void flush(), PAUSE);
    },
    [flush],
  );

  // leaving the page saves what is still waiting
  useEffect(
    () => () => {
      void flush().then(() => client.invalidateQueries({ queryKey: ['write-up', study, id] }));
    },
    [flush, client, study, id],
  );
  // closing the window would not wait for it: the browser asks first
  useEffect(() => {
    if (!isWaiting) return;
    const ask = (event: BeforeUnloadEvent) => {
      event.preventDefault();
      void flush();
    };
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [isWaiting, flush]);
  return { keep, flush, isWaiting, error: save.error };
}
