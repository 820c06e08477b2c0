import { studyEventSchema, type StudyEvent } from '@yellow-thread/contract';
import {
  CHANGE_CHANNEL,
  listenTo,
  type Listening,
  type ChangeNotification,
} from '../database/index.js';

type Listener = (event: StudyEvent) => void;

export interface StudyEvents {
  /** Tells what happens to any study from when it resolves on. @returns what ends it */
  listen(listener: Listener): Promise<() => void>;
  close(): Promise<void>;
}

/**
 * Hears from PostgreSQL what any server changed, and tells it on. After a connection that broke, everybody is told
 * that anything may have changed meanwhile.
 */
export function openStudyEvents(url: string, onError: (error: unknown) => void): StudyEvents {
  const listeners = new Set<Listener>();
  let listening: Listening | null = null;

  const tell = (event: StudyEvent) => {
    for (const listener of listeners) listener(event);
  };
  const onMessage = (payload: string) => {
    // only this server's own code writes to the channel
    const { studyId, accountId, ...told } = JSON.parse(payload) as ChangeNotification;
    tell(studyEventSchema.parse({ study: studyId, by: accountId, ...told }));
  };
  const onAgain = () => tell({ study: 0, tab: null, by: 0, tables: [], responses: null });

  return {
    async listen(listener) {
      listening ??= listenTo(url, CHANGE_CHANNEL, { onMessage, onAgain, onError });
      await listening.ready;
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    async close() {
      await listening?.close();
    },
  };
}
