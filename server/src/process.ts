import { isConnectionLost } from './database/index.js';

/** Ends the process in order on a signal to stop; once, however many signals come. */
export function stopOnSignal(stop: () => Promise<void>): void {
  let stopping = false;
  const onSignal = () => {
    if (stopping) return;
    stopping = true;
    void stop().then(() => process.exit(0));
  };
  process.on('SIGTERM', onSignal);
  process.on('SIGINT', onSignal);
}

/** The reader of the output is gone: that is no reason to stop. */
export function outliveOutput(): void {
  for (const output of [process.stdout, process.stderr])
    output.on('error', (error: NodeJS.ErrnoException) => {
      if (error.code !== 'EPIPE') throw error;
    });
}

/** What a start needs: where it fails, the process ends with a sentence and status 1, and may be started again. */
export async function orGiveUp<Result>(work: () => Result | Promise<Result>): Promise<Result> {
  try {
    return await work();
  } catch (error) {
    console.error(`Yellow Thread cannot start: ${sentenceOf(error)}`);
    process.exit(1);
  }
}

function sentenceOf(error: unknown): string {
  if (isConnectionLost(error)) return 'the database at DATABASE_URL is not reachable.';
  if (!(error instanceof Error)) return String(error);
  if ('code' in error && error.code === 'EADDRINUSE')
    return 'something else answers at this port already: set PORT to another.';
  if ('code' in error && error.code === 'EADDRNOTAVAIL')
    return 'HOST is no address of this machine.';
  return error.message;
}
