import { expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const source = fileURLToPath(new URL('.', import.meta.url));

interface Example {
  folder: string;
  expression: string;
  result: string;
}

/** Examples in the docstrings of core: an expression, `//`, and its result, with a source in brackets where it has one. */
function examplesIn(path: string): Example[] {
  const blocks = readFileSync(source + path, 'utf8').matchAll(/@example\n((?: \* {3,}\S.*\n)+)/gu);
  return [...blocks].flatMap(([, lines]) =>
    [...lines!.matchAll(/^ \* +(.+?) \/\/ (.+?)(?: \([A-Z][^)]*\))?$/gmu)].map(
      ([, expression, result]) => ({
        folder: path.split('/')[0]!,
        expression: expression!,
        result: result!,
      }),
    ),
  );
}

/** A value as precise as the result is written. */
function rounded(value: unknown, decimals: number): unknown {
  if (typeof value === 'number') return Number(value.toFixed(decimals));
  if (Array.isArray(value)) return value.map((one) => rounded(one, decimals));
  return value;
}

const examples = readdirSync(source, { recursive: true, encoding: 'utf8' })
  .filter((path) => path.endsWith('.ts') && !path.endsWith('.test.ts'))
  .flatMap(examplesIn);

test('there are examples', () => expect(examples.length).toBeGreaterThan(15));

test.each(examples)('$expression', async ({ folder, expression, result }) => {
  const exported = (await import(`./${folder}/index.js`)) as Record<string, unknown>;
  const names = Object.keys(exported);
  // our own docstrings, and nothing else, are run
  const run = (code: string): unknown =>
    // eslint-disable-next-line @typescript-eslint/no-implied-eval
    (new Function(...names, `return (${code});`) as (...values: unknown[]) => unknown)(
      ...names.map((name) => exported[name]),
    );
  const decimals = Math.max(
    0,
    ...[...result.matchAll(/\.(\d+)/gu)].map(([, digits]) => digits!.length),
  );
  expect(rounded(run(expression), decimals)).toEqual(run(result));
});
