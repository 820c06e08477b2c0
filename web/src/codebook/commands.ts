import { DIGIT_KEYS, digitOf, helpOf, type Command } from '../frame/commands.js';

/** A code in the list of the codebook. */
export interface AtCodeRow {
  focus: (step: 1 | -1) => void;
  move: (step: 1 | -1) => void;
}

const stepOf = (event: KeyboardEvent | null) => (event?.key === 'ArrowDown' ? 1 : -1);

export const codeRowCommands: readonly Command<AtCodeRow>[] = [
  {
    id: 'code',
    keys: ['ArrowUp', 'ArrowDown'],
    label: 'code before, next code',
    run: ({ focus }, event) => focus(stepOf(event)),
  },
  {
    id: 'move',
    keys: ['Alt+ArrowUp', 'Alt+ArrowDown'],
    label: 'move the code up or down, across themes',
    run: ({ move }, event) => move(stepOf(event)),
  },
];

export const codebookHelp = helpOf(codeRowCommands);

/** A mention that is sorted into piles. */
export interface AtMention {
  focus: (step: 1 | -1) => void;
  /** @returns false where there is no such pile */
  put: (pile: number) => boolean;
}

export const mentionCommands: readonly Command<AtMention>[] = [
  {
    id: 'mention',
    keys: ['ArrowUp', 'ArrowDown'],
    label: 'mention before, next mention',
    run: ({ focus }, event) => focus(stepOf(event)),
  },
  {
    id: 'put',
    keys: DIGIT_KEYS,
    label: 'put the mention on the pile of that number',
    run: ({ put }, event) => put(digitOf(event)),
  },
];

export const sortHelp = helpOf(mentionCommands);
