/** Assembles core/src/learning/solver/wasm/kernels.wat into kernelsBinary.ts beside it: `npm run assemble`, after a change of the former. */
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import wabt from 'wabt';

const file = (name: string) =>
  fileURLToPath(new URL(`../core/src/learning/solver/wasm/${name}`, import.meta.url));
const assembler = await wabt();
const { buffer } = assembler
  .parseWat('kernels.wat', readFileSync(file('kernels.wat'), 'utf8'), {
    simd: true,
  })
  .toBinary({});
const lines = Buffer.from(buffer)
  .toString('base64')
  .match(/.{1,92}/gu)!;
writeFileSync(
  file('kernelsBinary.ts'),
  [
    '/** `kernels.wat`, assembled by `npm run assemble`; a test sees to it that the two belong together. */',
    'export const kernelsBinary =',
    lines.map((line) => `  '${line}'`).join(' +\n') + ';',
    '',
  ].join('\n'),
);
