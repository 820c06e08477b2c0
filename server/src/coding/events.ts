import { studyEventSchema, type StudyEvent } from '@yellow-thread/contract';
import pg from 'pg';
import { CHANGE_CHANNEL, type ToldChange } from '../database/index.js';

type Listener = (event: StudyEvent) => void;

export interface StudyEvents {
  /** Tells what happens to a study from when it resolves on. @returns what ends it */
  listen(studyId: number, listener: Listener): Promise<() => void>;
  close(): Promise<void>;
}

const AGAIN_AFTER_MS = 1000;

/**
 * Hears from PostgreSQL what any server changed, and tells it on. A connection that breaks is made again, and
 * everybody is told that anything may have changed meanwhile.
 */
export function openStudyEvents(url: string, onError: (error: unknown) => void): StudyEvents {
  const listeners = new Map<number, Set<Listener>>();
  let client: pg.Client | null = null;
  let connecting: Promise<void> | null = null;
  let closed = false;
  let again: NodeJS.Timeout | undefined;

  const tell = (studyId: number, event: StudyEvent) => {
    for (const listener of listeners.get(studyId) ?? []) listener(event);
  };
  const hear = (payload: string | undefined) => {
    // only this server's own code writes to the channel
    const told = JSON.parse(payload ?? '') as ToldChange;
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
  const lost = (error: unknown) => {
    if (client === null || closed) return;
    client = null;
    onError(error);
    again = setTimeout(() => {
      connecting = connect(true);
    }, AGAIN_AFTER_MS);
  };
  const connect = async (anew: boolean) => {
    const fresh = new pg.Client(url);
    client = fresh;
    fresh.on('error', lost);
    fresh.on('end', () => lost(new Error('The connection for events ended.')));
    fresh.on('notification', ({ payload }) => hear(payload));
    try {
      await fresh.connect();
      await fresh.query(`listen ${CHANGE_CHANNEL}`);
      if (anew)
        for (const studyId of listeners.keys())
          tell(studyId, { tab: null, by: 0, tables: [], responses: null });
    } catch (error) {
      lost(error);
    }
  };

  return {
    async listen(studyId, listener) {
      connecting ??= connect(false);
      await connecting;
      const heard = listeners.get(studyId) ?? new Set();
      listeners.set(studyId, heard.add(listener));
      return () => {
        heard.delete(listener);
        if (heard.size === 0) listeners.delete(studyId);
      };
    },
    async close() {
      closed = true;
      clearTimeout(again);
      await client?.end();
    },
  };
}
