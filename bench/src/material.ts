import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { SentenceVectors } from '@yellow-thread/core/sentences';
import {
  readEncoder,
  TransformerEncoder,
  type SentenceEncoder,
} from '@yellow-thread/core/sentences';
import { isNoAnswer, NO_ANSWERS, noAnswerKeys } from '@yellow-thread/core/sheet';
import { codebook, readDemoPeople } from '@yellow-thread/demo';

/** Debian's own, which knows Debian's pandas and scikit-learn. */
export const PYTHON = '/usr/bin/python3';

const noAnswers = noAnswerKeys(NO_ANSWERS);

export interface CodedText {
  text: string;
  codes: ReadonlySet<string>;
}

/** The demo's substantive answers to each question with their true codes. */
export function demoQuestions(): CodedText[][] {
  const people = readDemoPeople();
  return [0, 1, 2].map((q) =>
    people
      .map((person) => person.answers[q]!)
      .filter(({ text }) => !isNoAnswer(text, noAnswers))
      .map(({ text, mentions }) => ({
        text,
        codes: new Set(mentions.map((mention) => mention.code)),
      })),
  );
}

/** The demo's codebook as training takes it. */
export const demoCodes = codebook.flatMap((theme) =>
  theme.codes.map(({ key, name, definition, include }) => ({ id: key, name, definition, include })),
);

/** Runs something and says how many milliseconds it took. */
export function timed<Result>(work: () => Result): { result: Result; ms: number } {
  const before = performance.now();
  const result = work();
  return { result, ms: performance.now() - before };
}

export const rounded = (value: number, places = 2): number => Number(value.toFixed(places));

/** What a script of this folder prints as JSON of what it is given in a file. */
export function askPython(script: string, given: unknown): unknown {
  const folder = mkdtempSync(join(tmpdir(), 'yellow-thread-bench-'));
  try {
    const file = join(folder, 'given.json');
    writeFileSync(file, JSON.stringify(given));
    const path = fileURLToPath(new URL(`./${script}`, import.meta.url));
    return JSON.parse(execFileSync(PYTHON, [path, file], { encoding: 'utf8', maxBuffer: 1 << 28 }));
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** The encoder that ships with the product. */
export const readSentenceEncoder = (): SentenceEncoder =>
  new TransformerEncoder(
    readEncoder(readFileSync(new URL('../../server/words/sentences.bin', import.meta.url))),
  );

/** Vectors of texts by an encoder, each read when it is first asked for. */
export function encodedOnce(encoder: SentenceEncoder): SentenceVectors {
  const known = new Map<string, Float32Array | null>();
  return {
    size: encoder.size,
    of(text) {
      let vector = known.get(text);
      if (vector === undefined) known.set(text, (vector = encoder.encode([text])[0]!));
      return vector;
    },
  };
}
