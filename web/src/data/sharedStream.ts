import { studyEventSchema, type StudyEvent } from '@yellow-thread/contract';
import { z } from 'zod';

// A browser opens six connections to a server at most, and a stream keeps one: all tabs share one stream. Whichever
// tab holds the lock has it and tells the others; the next in line takes over when it closes or is long out of sight.

const NAME = 'yellow-thread-stream';
/** A tab that nobody has looked at for so long lets go. */
const LET_GO_AFTER_MS = 60_000;
/** A stream that was refused, not just lost, is not opened again by the browser. */
const OPEN_AGAIN_MS = 5_000;

const told = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('event'), event: studyEventSchema }),
  /** Whether the stream is there; `again` when what came before may have been missed. */
  z.object({ kind: z.literal('state'), connected: z.boolean(), anew: z.boolean() }),
  z.object({ kind: z.literal('ask') }),
]);
type Told = z.infer<typeof told>;

export interface StreamListener {
  onEvent: (event: StudyEvent) => void;
  onConnected: (connected: boolean) => void;
  /** Something may have happened that was not heard. */
  onMissed: () => void;
}

/** Follows what happens to the person's studies, by this tab's stream or another's. @returns what ends it */
export function followStream({ onEvent, onConnected, onMissed }: StreamListener): () => void {
  const channel = new BroadcastChannel(NAME);
  const tell = (message: Told) => channel.postMessage(message);
  /** Whether something was heard of already, so that a gap is one. */
  let follows = false;
  let connected = true;
  let source: EventSource | null = null;
  let leave: (() => void) | null = null;
  let again: number | undefined;
  let letGo: number | undefined;

  const setState = (now: boolean, anew: boolean) => {
    connected = now;
    onConnected(now);
    if (anew && follows) onMissed();
    follows ||= now;
  };
  channel.addEventListener('message', ({ data }) => {
    const message = told.safeParse(data);
    if (!message.success) return;
    if (message.data.kind === 'event') onEvent(message.data.event);
    else if (message.data.kind === 'state') setState(message.data.connected, message.data.anew);
    else if (source) tell({ kind: 'state', connected, anew: false });
  });

  function open() {
    const fresh = new EventSource('/api/events');
    source = fresh;
    fresh.addEventListener('open', () => {
      setState(true, true);
      tell({ kind: 'state', connected: true, anew: true });
    });
    fresh.addEventListener('error', () => {
      setState(false, false);
      tell({ kind: 'state', connected: false, anew: false });
      if (fresh.readyState === EventSource.CLOSED) again = window.setTimeout(open, OPEN_AGAIN_MS);
    });
    fresh.addEventListener('message', ({ data }) => {
      const event = studyEventSchema.safeParse(JSON.parse(String(data)));
      if (!event.success) return;
      onEvent(event.data);
      tell({ kind: 'event', event: event.data });
    });
  }
  function close() {
    window.clearTimeout(again);
    source?.close();
    source = null;
  }

  function takePart() {
    if (leave) return;
    const waiting = new AbortController();
    leave = () => waiting.abort();
    navigator.locks
      .request(
        NAME,
        { signal: waiting.signal },
        () =>
          new Promise<void>((resolve) => {
            if (waiting.signal.aborted) return resolve();
            open();
            leave = () => {
              close();
              resolve();
            };
          }),
      )
      .catch(() => {
        // called off while it waited
      });
    tell({ kind: 'ask' });
  }
  function letGoNow() {
    leave?.();
    leave = null;
  }
  const onVisibility = () => {
    window.clearTimeout(letGo);
    if (document.hidden) letGo = window.setTimeout(letGoNow, LET_GO_AFTER_MS);
    else if (!leave) {
      takePart();
      // nobody may have listened meanwhile
      onMissed();
    }
  };
  document.addEventListener('visibilitychange', onVisibility);
  takePart();
  return () => {
    document.removeEventListener('visibilitychange', onVisibility);
    window.clearTimeout(letGo);
    letGoNow();
    channel.close();
    onConnected(true);
  };
}
