import { readFile } from 'node:fs/promises';
import { readWordTable, type WordTable } from '@yellow-thread/core/learning';

const file = new URL('../../../words/english.bin', import.meta.url);
let table: Promise<WordTable | null> | null = null;

/**
 * The vectors of common English words, made at set-up; read once a thread. Null where they were not made: the models
 * then rest on words and character runs, as they do for other languages.
 */
export function englishWords(): Promise<WordTable | null> {
  table ??= readFile(file).then(readWordTable, (error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return null;
    throw error;
  });
  return table;
}
