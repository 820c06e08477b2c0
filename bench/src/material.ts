import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
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
