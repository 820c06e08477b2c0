/** Assembles WebAssembly texts into a module of base64 beside each: `npm run assemble`, after a change of one. */
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import wabt from 'wabt';

const TEXTS = [
  { folder: 'learning/solver/wasm', text: 'kernels.wat', binary: 'kernelsBinary' },
  { folder: 'sentences/wasm', text: 'encoder.wat', binary: 'encoderBinary' },
];

const assembler = await wabt();
for (const { folder, text, binary } of TEXTS) {
  const file = (name: string) =>
    fileURLToPath(new URL(`../core/src/${folder}/${name}`, import.meta.url));
  const { buffer } = assembler
    .parseWat(text, readFileSync(file(text), 'utf8'), { simd: true })
    .toBinary({});
  const lines = Buffer.from(buffer)
    .toString('base64')
    .match(/.{1,92}/gu)!;
  writeFileSync(
    file(`${binary}.ts`),
    [
      `/** \`${text}\`, assembled by \`npm run assemble\`; a test sees to it that the two belong together. */`,
      `export const ${binary} =`,
      lines.map((line) => `  '${line}'`).join(' +\n') + ';',
      '',
    ].join('\n'),
  );
}
