import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { Problem, problems } from '../../wording/problems.js';
import { answerChannel, type ChannelHandlers } from './threadChannel.js';
import type { Outcome, ThreadWork, WorkResult } from './thread.js';

/** Worker threads on which everything is computed that would hold up the server. */
export interface Threads {
  run<Name extends keyof ThreadWork>(
    name: Name,
    input: ThreadWork[Name]['input'],
    options?: ChannelHandlers & { signal?: AbortSignal },
  ): Promise<ThreadWork[Name]['result']>;
  close(): Promise<void>;
}

// run from source (tsx, Jest) this file ends in .ts, and the thread must register tsx for itself
const fromSource = import.meta.url.endsWith('.ts');
/** A file made to fill the memory fills its thread's, which is ended, and not the server's. */
const MOST_MEMORY_MB = 2048;

/** A workbook is written row by row: with more room than this it only lets more lie about that is of no use any more. */
const MOST_FOR_FILES_MB = { old: 96, young: 16 };

/** Reading for meaning and training take minutes: they give way to whoever saves a code meanwhile, on Linux. */
const YIELDING = 10;

/** Sheets and files do not wait behind models, nothing short behind something long, and one sheet holds up no other. */
type PoolName = 'sheets' | 'models' | 'files' | 'short' | 'look';
const poolOf: Record<keyof ThreadWork, PoolName> = {
  readSheet: 'sheets',
  checkSheet: 'sheets',
  writeSheet: 'sheets',
  stageSheet: 'sheets',
  readListed: 'short',
  weaknessOf: 'short',
  readTerms: 'look',
  readTermLines: 'look',
  look: 'look',
  contrast: 'look',
  network: 'look',
  clusters: 'models',
  representatives: 'models',
  orderAlike: 'models',
  alikeTo: 'models',
  mostTelling: 'models',
  toneLines: 'look',
  trainTone: 'models',
  nearCodes: 'short',
  helpWithAnswer: 'look',
  trainCodes: 'models',
  placeThresholds: 'models',
  encode: 'models',
  nearest: 'models',
  writeRespondents: 'files',
};

export function createThreads(): Threads {
  // a larger nursery than usual: most of what a row is read with is dead at once
  const makePool = (
    maxThreads: number,
    { most = { old: MOST_MEMORY_MB, young: 32 }, niceIncrement = 0 } = {},
  ) =>
    new Piscina({
      filename: new URL(fromSource ? './dev.mjs' : './thread.js', import.meta.url).href,
      minThreads: 0,
      maxThreads,
      idleTimeout: 30_000,
      niceIncrement,
      resourceLimits: { maxOldGenerationSizeMb: most.old, maxYoungGenerationSizeMb: most.young },
      ...(fromSource ? { execArgv: ['--conditions=source'] } : {}),
    });
  const pools: Record<PoolName, Piscina> = {
    sheets: makePool(2),
    short: makePool(1),
    look: makePool(2),
    models: makePool(2, { niceIncrement: YIELDING }),
    files: makePool(1, { most: MOST_FOR_FILES_MB }),
  };
  return {
    async run(name, input, { signal, ...end } = {}) {
      const { port1, port2 } = new MessageChannel();
      const channel = answerChannel(port1, end);
      try {
        const outcome = (await pools[poolOf[name]].run(
          { name, input, port: port2 },
          { transferList: [port2], ...(signal && { signal }) },
        )) as Outcome<WorkResult<typeof name>>;
        if (outcome.state === 'problem') throw new Problem(...outcome.problem);
        return outcome.result;
      } catch (error) {
        if (isOutOfMemory(error)) throw problems.tooMuchMemory();
        throw channel.failure() ?? error;
      } finally {
        port1.close();
      }
    },
    close: async () => {
      await Promise.all(Object.values(pools).map((pool) => pool.destroy()));
    },
  };
}

const isOutOfMemory = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY';
