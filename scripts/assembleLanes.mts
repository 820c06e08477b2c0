/** Assembles core/src/learning/lanes.wat into lanesBinary.ts beside it: `npm run assemble`, after a change of the former. */
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import wabt from 'wabt';

const file = (name: string) =>
  fileURLToPath(new URL(`../core/src/learning/${name}`, import.meta.url));
const assembler = await wabt();
const { buffer } = assembler
  .parseWat('lanes.wat', readFileSync(file('lanes.wat'), 'utf8'), {
    simd: true,
  })
  .toBinary({});
const lines = Buffer.from(buffer)
  .toString('base64')
  .match(/.{1,92}/gu)!;
writeFileSync(
  file('lanesBinary.ts'),
  [
    '/** `lanes.wat`, assembled by `npm run assemble`; a test sees to it that the two belong together. */',
    'export const lanesBinary =',
    lines.map((line) => `  '${line}'`).join(' +\n') + ';',
    '',
  ].join('\n'),
);
