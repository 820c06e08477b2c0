import type { MessagePort } from 'node:worker_threads';
import type { Look } from '@yellow-thread/contract';
import { countLengths, countWords } from '@yellow-thread/core/look';
import { trainQuestion, type CodeResult, type TrainingInput } from '@yellow-thread/core/learning';
import {
  planImport,
  type ColumnRole,
  type ImportPlan,
  type Table,
} from '@yellow-thread/core/sheet';
import { Problem } from '../../problems.js';
import { readSheet } from '../../sheet/readSheet.js';

/** What can be asked of a thread, by name. */
export interface ThreadWork {
  readSheet: { input: { fileName: string; content: Uint8Array }; result: Table };
  planImport: {
    input: { fileName: string; content: Uint8Array; roles: ColumnRole[] };
    result: ImportPlan;
  };
  look: {
    input: { answers: string[]; question: string; aside: string[]; most: number };
    result: Omit<Look, 'answered'>;
  };
  trainQuestion: { input: TrainingInput; result: CodeResult[] };
}
export type WorkResult<Name extends keyof ThreadWork> = ThreadWork[Name]['result'];

/** What a thread sends back. A problem goes as plain values: an error's own fields do not cross threads. */
export type Outcome<Result> =
  | { state: 'done'; result: Result }
  | {
      state: 'problem';
      problem: [status: number, code: string, sentence: string, details?: Record<string, unknown>];
    };

type Message = {
  [Name in keyof ThreadWork]: { name: Name; input: ThreadWork[Name]['input']; port: MessagePort };
}[keyof ThreadWork];

export default async function work(message: Message): Promise<Outcome<unknown>> {
  try {
    return { state: 'done', result: await compute(message) };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    const { status, code, message: sentence, details } = error;
    return { state: 'problem', problem: [status, code, sentence, details] };
  }
}

async function compute(message: Message): Promise<unknown> {
  switch (message.name) {
    case 'readSheet':
      return readSheet(message.input.fileName, message.input.content);
    case 'planImport': {
      const { fileName, content, roles } = message.input;
      return planImport(await readSheet(fileName, content), roles);
    }
    case 'look': {
      const { answers, question, aside, most } = message.input;
      return {
        lengths: countLengths(answers),
        words: countWords(answers, question, aside, most),
      };
    }
    case 'trainQuestion':
      return trainQuestion(message.input, (progress) => {
        message.port.postMessage(progress);
      });
  }
}
