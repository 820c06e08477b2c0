import { studyEventSchema, type StudyEvent } from '@yellow-thread/contract';
import { CHANGE_CHANNEL, listenTo, type Listening, type ToldChange } from '../database/index.js';

type Listener = (event: StudyEvent) => void;

export interface StudyEvents {
  /** Tells what happens to a study from when it resolves on. @returns what ends it */
  listen(studyId: number, listener: Listener): Promise<() => void>;
  close(): Promise<void>;
}

/**
 * Hears from PostgreSQL what any server changed, and tells it on. After a connection that broke, everybody is told
 * that anything may have changed meanwhile.
 */
export function openStudyEvents(url: string, onError: (error: unknown) => void): StudyEvents {
  const listeners = new Map<number, Set<Listener>>();
  let listening: Listening | null = null;

  const tell = (studyId: number, event: StudyEvent) => {
    for (const listener of listeners.get(studyId) ?? []) listener(event);
  };
  const onMessage = (payload: string) => {
    // only this server's own code writes to the channel
    const told = JSON.parse(payload) as ToldChange;
    tell(
      told.studyId,
      studyEventSchema.parse({
        tab: told.tab,
        by: told.accountId,
        tables: told.tables,
        responses: told.responses,
      }),
    );
  };
  const onAgain = () => {
    for (const studyId of listeners.keys())
      tell(studyId, { tab: null, by: 0, tables: [], responses: null });
  };

  return {
    async listen(studyId, listener) {
      listening ??= listenTo(url, CHANGE_CHANNEL, { onMessage, onAgain, onError });
      await listening.ready;
      const heard = listeners.get(studyId) ?? new Set();
      listeners.set(studyId, heard.add(listener));
      return () => {
        heard.delete(listener);
        if (heard.size === 0) listeners.delete(studyId);
      };
    },
    async close() {
      await listening?.close();
    },
  };
}
