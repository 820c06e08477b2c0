import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { address, enter, type Product } from '../product.js';
import { newCode, save, smallStudy, waits, type Trial } from './people.js';

const MAIN = fileURLToPath(new URL('../../../server/dist/main.js', import.meta.url));
const TURNS = 150;

/** A second server on the same database: what one acknowledged the other must show at once. */
export async function twoServers(product: Product, hard: number): Promise<Trial[]> {
  const port = Number(new URL(address).port) + 1;
  const second = spawn(process.execPath, [MAIN], {
    env: { ...process.env, PORT: String(port), DATABASE_URL: product.database, LOG: 'off' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    await new Promise<void>((resolve) => {
      second.stdout.on('data', (output) => {
        if (String(output).includes('is ready')) resolve();
      });
    });
    const here = await enter();
    const there = await enter(`http://127.0.0.1:${port}`);
    const study = await smallStudy(here.call, 30);
    const waited = waits();
    let stale = 0;
    for (let turn = 1; turn <= TURNS * hard; turn++) {
      const [writes, reads] = turn % 2 === 0 ? [here, there] : [there, here];
      const code = await newCode(writes.call, study.id, `Code ${turn}`);
      await waited.of(() =>
        save(writes.call, study.id, study.answers[turn % study.answers.length]!, code),
      );
      const { codes } = await reads.call<{ codes: { id: string; mentions: number }[] }>(
        'GET',
        `/studies/${study.id}/codebook`,
      );
      if (codes.find((one) => one.id === code)?.mentions !== 1) stale += 1;
    }
    return [
      {
        ...waited.told('two servers on one database, each read what the other wrote'),
        lost: stale,
      },
    ];
  } finally {
    second.kill('SIGTERM');
  }
}
