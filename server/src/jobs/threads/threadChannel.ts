import type { MessagePort } from 'node:worker_threads';
import type { Progress } from '@yellow-thread/contract';

/** What the server gives a thread at work, and takes from it, piece by piece. */
export interface ThreadChannel {
  /** A part of the file that the work is about. */
  part: (index: number) => Promise<Uint8Array>;
  /** Hands over a piece of what comes out; resolves when it is written, so that the thread keeps step. */
  write: (to: string, bytes: Uint8Array) => Promise<void>;
  report: (progress: Progress) => void;
}

/** The server's side of a line. */
export interface ChannelHandlers {
  part?: ThreadChannel['part'];
  write?: ThreadChannel['write'];
  onProgress?: (progress: Progress) => void;
}

type Ask = { part: number } | { to: string; bytes: Uint8Array };
type FromThread = { ask: number; what: Ask } | { progress: Progress };
type ToThread = { ask: number; part?: Uint8Array; failed?: true };

/** The thread's side: asks one thing after another and waits for each. */
export function openChannel(port: MessagePort): ThreadChannel {
  const waiting = new Map<
    number,
    { resolve: (part: Uint8Array | undefined) => void; reject: (error: Error) => void }
  >();
  let asked = 0;
  port.on('message', ({ ask, part, failed }: ToThread) => {
    const asker = waiting.get(ask);
    waiting.delete(ask);
    if (failed) asker?.reject(new Error('The server could not go on with this.'));
    else asker?.resolve(part);
  });
  const ask = (what: Ask) =>
    new Promise<Uint8Array | undefined>((resolve, reject) => {
      const number = (asked += 1);
      waiting.set(number, { resolve, reject });
      port.postMessage({ ask: number, what } satisfies FromThread);
    });
  return {
    part: async (index) => {
      const part = await ask({ part: index });
      if (!part) throw new Error('No part came.');
      return part;
    },
    write: async (to, bytes) => {
      await ask({ to, bytes });
    },
    report: (progress) => port.postMessage({ progress } satisfies FromThread),
  };
}

/**
 * Answers a thread. What goes wrong on this side ends the thread's work with an error of its own; the
 * first cause is kept and told by `failure`.
 */
export function answerChannel(port: MessagePort, end: ChannelHandlers): { failure: () => unknown } {
  let failure: unknown = null;
  const answer = async (what: Ask): Promise<Uint8Array | undefined> => {
    if ('part' in what) return end.part?.(what.part);
    await end.write?.(what.to, what.bytes);
    return undefined;
  };
  port.on('message', (message: FromThread) => {
    if ('progress' in message) {
      end.onProgress?.(message.progress);
      return;
    }
    answer(message.what).then(
      (part) => port.postMessage({ ask: message.ask, ...(part && { part }) } satisfies ToThread),
      (error: unknown) => {
        failure ??= error;
        port.postMessage({ ask: message.ask, failed: true } satisfies ToThread);
      },
    );
  });
  return { failure: () => failure };
}
