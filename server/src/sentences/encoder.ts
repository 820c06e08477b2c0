import { readFile } from 'node:fs/promises';
import {
  encoderHead,
  encoderId,
  readEncoder,
  TransformerEncoder,
  type SentenceEncoder,
} from '@yellow-thread/core/sentences';

/** What the product ships with, made at set-up; another file of the same form, or “none”, takes its place. */
const shipped = new URL('../../words/sentences.bin', import.meta.url);

/** An encoder as the rest of the server knows it. */
export interface EncoderInUse {
  id: string;
  languages: readonly string[];
}

let file: Promise<Uint8Array | null> | null = null;
let inUse: Promise<EncoderInUse | null> | null = null;
let encoder: Promise<SentenceEncoder | null> | null = null;

const readFileOnce = (): Promise<Uint8Array | null> =>
  (file ??= readEncoderFile(process.env['SENTENCE_ENCODER']));

async function readEncoderFile(chosen: string | undefined): Promise<Uint8Array | null> {
  if (chosen === 'none') return null;
  try {
    return await readFile(chosen ?? shipped);
  } catch (error) {
    // where it was not made, models rest on words
    if ((error as NodeJS.ErrnoException).code === 'ENOENT' && chosen === undefined) return null;
    throw error;
  }
}

/** Which encoder reads texts here; null for none. */
export const encoderInUse = (): Promise<EncoderInUse | null> =>
  (inUse ??= readFileOnce().then((bytes) => {
    if (!bytes) return null;
    const head = encoderHead(bytes);
    return { id: encoderId(head), languages: head.languages };
  }));

/** The encoder itself, for threads: it takes 60 MB. */
export const sentenceEncoder = (): Promise<SentenceEncoder | null> =>
  (encoder ??= readFileOnce().then((bytes) => bytes && new TransformerEncoder(readEncoder(bytes))));
