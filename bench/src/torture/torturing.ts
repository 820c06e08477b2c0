import { spawn } from 'node:child_process';
import { parseArgs } from 'node:util';
import { fileURLToPath } from 'node:url';
import { withProduct, type Product } from '../product.js';
import { coders } from './coders.js';
import { holds } from './holds.js';
import { hostileFiles } from './hostileFiles.js';
import { breakdowns } from './breakdowns.js';
import type { Trial } from './people.js';
import { twoServers } from './twoServers.js';

const PROJECT = fileURLToPath(new URL('../../..', import.meta.url));

const inProduct: Record<string, (product: Product, hard: number) => Promise<Trial[]>> = {
  breakdowns,
  files: hostileFiles,
  coders,
  servers: twoServers,
  holds,
};

/**
 * Does to the product what breaks others: processes killed, connections cut, hostile files, strange requests, many
 * people beside a large import, two servers on one database, eight tabs in one browser.
 *
 * `--only` names one of `breakdowns`, `files`, `coders`, `servers`, `holds`, `fuzz` and `tabs`; `--hard` multiplies how often.
 */
export async function torturing(args: string[]): Promise<Trial[]> {
  const { values } = parseArgs({
    args,
    options: {
      only: { type: 'string' },
      hard: { type: 'string', default: '1' },
      json: { type: 'boolean' },
    },
  });
  const hard = Number(values.hard);
  const isAsked = (name: string) => values.only === undefined || values.only === name;
  const trials: Trial[] = [];
  const told = (found: Trial[]) => {
    if (!values.json) console.table(found);
    trials.push(...found);
  };
  const names = Object.keys(inProduct).filter(isAsked);
  if (names.length > 0)
    await withProduct(async (product) => {
      for (const name of names) told(await inProduct[name]!(product, hard));
    });
  if (isAsked('fuzz')) told([await fuzz(hard)]);
  if (isAsked('tabs')) told([await tabs()]);
  return trials;
}

/** The seeded tests of the API with another seed and more requests. */
async function fuzz(hard: number): Promise<Trial> {
  const seed = Math.floor(Math.random() * 2 ** 31);
  const each = 60 * hard;
  const passed = await run('npx', ['jest', 'server/src/fuzz', 'server/src/foreignIds'], {
    NODE_OPTIONS: '--experimental-vm-modules',
    FUZZ_SEED: String(seed),
    FUZZ_EACH: String(each),
  });
  const what = `strange requests, ${each} to each operation (seed ${seed}), and foreign ids`;
  return { what, tried: 2, survived: passed ? 2 : 0, lost: 0, longestWait: null };
}

async function tabs(): Promise<Trial> {
  const config = ['--config', 'tests/playwright.config.ts', '--project', 'product'];
  const passed = await run('npx', ['playwright', 'test', ...config, '-g', 'eight tabs'], {});
  return {
    what: 'eight tabs of one browser',
    tried: 8,
    survived: passed ? 8 : 0,
    lost: 0,
    longestWait: null,
  };
}

const run = (command: string, args: string[], env: Record<string, string>): Promise<boolean> =>
  new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: PROJECT,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    child.on('error', reject);
    child.on('exit', (code) => resolve(code === 0));
  });
