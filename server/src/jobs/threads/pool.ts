import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { Problem } from '../../problems.js';
import type { Outcome, ThreadWork, WorkResult } from './thread.js';

/** Worker threads on which everything is computed that would hold up the server. */
export interface Threads {
  run<Name extends keyof ThreadWork>(
    name: Name,
    input: ThreadWork[Name]['input'],
    options?: {
      signal?: AbortSignal;
      onProgress?: (progress: { done: number; of: number }) => void;
    },
  ): Promise<ThreadWork[Name]['result']>;
  close(): Promise<void>;
}

// run from source (tsx, Jest) this file ends in .ts, and the thread must register tsx for itself
const fromSource = import.meta.url.endsWith('.ts');

export function createThreads(): Threads {
  const pool = new Piscina({
    filename: new URL(fromSource ? './dev.mjs' : './thread.js', import.meta.url).href,
    minThreads: 0,
    maxThreads: 2,
    idleTimeout: 30_000,
    ...(fromSource ? { execArgv: ['--conditions=source'] } : {}),
  });
  return {
    async run(name, input, { signal, onProgress } = {}) {
      const { port1, port2 } = new MessageChannel();
      if (onProgress) port1.on('message', onProgress);
      try {
        const outcome = (await pool.run(
          { name, input, port: port2 },
          { transferList: [port2], ...(signal && { signal }) },
        )) as Outcome<WorkResult<typeof name>>;
        if (outcome.state === 'problem') throw new Problem(...outcome.problem);
        return outcome.result;
      } finally {
        port1.close();
      }
    },
    close: () => pool.destroy(),
  };
}
