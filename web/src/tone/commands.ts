import type { Tone } from '@yellow-thread/contract';
import { helpOf, type Command } from '../frame/commands.js';
import { toneCommandTexts as texts } from './texts.js';

/** A line whose tone is checked. */
export interface AtLine {
  active: number;
  goTo: (to: number) => void;
  /** What is proposed; null where the line is read without a proposal. */
  proposed: Tone | null;
  find: (tone: Tone) => void;
}

const found = (id: Tone, key: string): Command<AtLine> => ({
  id,
  keys: [key],
  label: texts[id],
  run: ({ find }) => find(id),
});

const moving: Command<AtLine> = {
  id: 'line',
  keys: ['ArrowUp', 'ArrowDown'],
  label: texts.line,
  run: ({ active, goTo }, event) => goTo(active + (event?.key === 'ArrowDown' ? 1 : -1)),
};

const OTHER_WAY: Partial<Record<Tone, Tone>> = { positive: 'negative', negative: 'positive' };

/** Keys where lines are read without a proposal. */
export const readLineCommands: readonly Command<AtLine>[] = [
  moving,
  found('positive', 'p'),
  found('negative', 'n'),
  found('mixed', 'm'),
  found('none', '0'),
];

/** Keys where a proposal is checked. */
export const checkLineCommands: readonly Command<AtLine>[] = [
  {
    id: 'right',
    keys: ['Enter'],
    label: texts.right,
    when: ({ proposed }) => proposed !== null,
    run: ({ proposed, find }) => find(proposed!),
  },
  {
    id: 'other',
    keys: ['x'],
    label: texts.other,
    when: ({ proposed }) => proposed !== null && OTHER_WAY[proposed] !== undefined,
    run: ({ proposed, find }) => find(OTHER_WAY[proposed!]!),
  },
  ...readLineCommands,
];

export const checkLineHelp = helpOf(checkLineCommands);
export const readLineHelp = helpOf(readLineCommands);
