import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { expect } from '@playwright/test';

export const project = fileURLToPath(new URL('..', import.meta.url));

/** A product that a test starts for itself, on data of its own. */
export interface Machine {
  product: ChildProcess;
  address: string;
  /** What it said so far. */
  output: () => string;
  /** Asks it to stop, and waits until it has. */
  stop: () => Promise<void>;
}

/** Runs `npm start`, in a process group of its own, and waits until the product answers. */
export async function startMachine(dataFolder: string, port: number): Promise<Machine> {
  const address = `http://127.0.0.1:${port}`;
  const product = spawn('npm', ['start', '--silent'], {
    cwd: project,
    detached: true,
    env: {
      ...process.env,
      ...{ PORT: String(port), DATA_FOLDER: dataFolder, LOG: 'off', BACKUP_CHECK_SECONDS: '1' },
    },
  });
  let output = '';
  product.stdout.on('data', (chunk) => (output += String(chunk)));
  // it makes a database and tables on a disk that may be slow, and waits until each is written for good
  await expect
    .poll(() => output, { timeout: 180_000 })
    .toContain(`Yellow Thread is ready: ${address}`);
  return {
    ...{ product, address, output: () => output },
    async stop() {
      product.kill('SIGTERM');
      await ended(product);
    },
  };
}

export const ended = (product: ChildProcess): Promise<unknown> =>
  product.exitCode === null && product.signalCode === null
    ? new Promise((resolve) => product.once('exit', resolve))
    : Promise.resolve();

/** The password that the owner of an installation is told at its first start. */
export const ownersPassword = ({ output }: Machine): string =>
  /one-time password ([\w-]{12}) /.exec(output())![1]!;
