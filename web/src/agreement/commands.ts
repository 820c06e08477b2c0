import { DIGIT_KEYS, digitOf, helpOf, type Command } from '../frame/commands.js';
import { readAgainTexts } from './texts.js';

/** An answer of a second reading, and what its field offers. */
export interface AtSecondReading {
  /** Whether something is typed in the field. */
  isTyped: boolean;
  hasCodes: boolean;
  /** The code that is pinned under a digit. */
  pinned: (digit: number) => string | undefined;
  apply: (codeId: string) => void;
  removeLast: () => void;
  settle: () => void;
  move: (step: 1 | -1) => void;
  tell: (text: string) => void;
}

const isEmpty = ({ isTyped }: AtSecondReading) => !isTyped;

export const secondReadingCommands: readonly Command<AtSecondReading>[] = [
  {
    id: 'pinned',
    keys: DIGIT_KEYS,
    label: 'apply the code pinned under the key',
    when: isEmpty,
    run: ({ pinned, apply }, event) => {
      const codeId = pinned(digitOf(event));
      return codeId === undefined ? false : apply(codeId);
    },
  },
  {
    id: 'remove last',
    keys: ['Backspace'],
    shown: 'Backspace (nothing typed)',
    label: 'remove the last code',
    when: isEmpty,
    run: ({ removeLast }) => removeLast(),
  },
  {
    id: 'settle',
    keys: ['Enter'],
    shown: 'Enter (nothing typed)',
    label: 'done: go to the next answer',
    when: isEmpty,
    run: ({ hasCodes, settle, tell }) => (hasCodes ? settle() : tell(readAgainTexts.noCodeYetType)),
  },
  {
    id: 'nothing applies',
    keys: ['$mod+Enter'],
    label: 'nothing applies: go to the next answer',
    inMenu: true,
    when: isEmpty,
    run: ({ hasCodes, settle, tell }) =>
      hasCodes ? tell(readAgainTexts.somethingAppliesTakeCodes) : settle(),
  },
  {
    id: 'answer',
    keys: ['ArrowUp', 'ArrowDown'],
    shown: '↑ ↓ (nothing typed)',
    label: 'answer before, next answer',
    when: isEmpty,
    run: ({ move }, event) => move(event?.key === 'ArrowDown' ? 1 : -1),
  },
];

export const secondReadingHelp = [
  { keys: 'type', does: 'find a code; ↑ ↓ choose among those found' },
  { keys: 'Enter', does: 'apply the code that is found' },
  ...helpOf(secondReadingCommands),
];
