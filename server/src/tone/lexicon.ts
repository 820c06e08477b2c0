import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { readToneLexicon, type ToneLexicon } from '@yellow-thread/core/tone';

let lexicon: Promise<ToneLexicon> | null = null;
/** The published lexicon, from its package; read once a thread. */
export const toneLexicon = (): Promise<ToneLexicon> =>
  (lexicon ??= readFile(
    createRequire(import.meta.url).resolve('vader-sentiment/vader_lexicon.txt'),
    'utf8',
  ).then(readToneLexicon));
