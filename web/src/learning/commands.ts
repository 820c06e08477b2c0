import { helpOf, type Command } from '../frame/commands.js';

/** What can be done with the answers that are shown to be coded next. */
export interface AtNextBatch {
  /** Null where there are none, or they are being drawn. */
  code: (() => void) | null;
}

export const nextBatchCommands: readonly Command<AtNextBatch>[] = [
  {
    id: 'code',
    keys: ['c'],
    label: 'code these answers',
    inMenu: true,
    when: ({ code }) => code !== null,
    run: ({ code }) => code?.(),
  },
];

export const nextBatchHelp = helpOf(nextBatchCommands);
