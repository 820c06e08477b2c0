import pg from 'pg';

export interface Listening {
  /** Resolves once what is notified from then on is heard. */
  ready: Promise<void>;
  close(): Promise<void>;
}

const AGAIN_AFTER_MS = 1000;

/**
 * Hears what is notified on a channel. A connection that breaks is made again.
 *
 * @param hears.onAgain when it was: notifications may have been missed meanwhile
 */
export function listenTo(
  url: string,
  channel: string,
  hears: {
    onMessage: (payload: string) => void;
    onAgain: () => void;
    onError: (error: unknown) => void;
  },
): Listening {
  let client: pg.Client | null = null;
  let closed = false;
  let again: NodeJS.Timeout | undefined;

  const lost = (of: pg.Client, error: unknown) => {
    if (client !== of || closed) return;
    client = null;
    hears.onError(error);
    again = setTimeout(() => void connect(true), AGAIN_AFTER_MS);
  };
  const connect = async (anew: boolean) => {
    const fresh = new pg.Client(url);
    client = fresh;
    fresh.on('error', (error) => lost(fresh, error));
    fresh.on('end', () => lost(fresh, new Error(`The connection for ${channel} ended.`)));
    fresh.on('notification', ({ payload }) => hears.onMessage(payload ?? ''));
    try {
      await fresh.connect();
      await fresh.query(`listen ${channel}`);
      if (anew) hears.onAgain();
    } catch (error) {
      lost(fresh, error);
    }
  };

  return {
    ready: connect(false),
    async close() {
      closed = true;
      clearTimeout(again);
      await client?.end();
    },
  };
}
