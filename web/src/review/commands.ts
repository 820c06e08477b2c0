import type { Decision, SuggestedAnswer, Verdict } from '@yellow-thread/contract';
import { extendByWord } from '@yellow-thread/core/coding';
import type { Span } from '@yellow-thread/core/text';
import { helpOf, type Command } from '../frame/commands.js';
import type { Asking, RowActions } from './suggestionRow.js';

/** The list of a code's suggestions, and the place in it where one is. */
export interface AtSuggestion {
  suggestions: readonly SuggestedAnswer[];
  active: number;
  passage: Span | null;
  /** The first suggestion below the threshold. */
  below: number;
  actions: RowActions;
  setActive: (to: number) => void;
  mark: (passage: Span | null) => void;
  ask: (asking: Asking | null) => void;
  moveThreshold: (to: number) => void;
  goToThreshold: () => Promise<void>;
  openByHand: () => void;
}

const isDown = (event: KeyboardEvent | null) => event?.key === 'ArrowDown';

const goTo = ({ suggestions, setActive }: AtSuggestion, to: number) =>
  setActive(Math.min(suggestions.length - 1, Math.max(0, to)));

function decideAndGoOn(at: AtSuggestion, state: Decision): void {
  at.actions.decide(state);
  goTo(at, at.active + 1);
}

/** Moves the threshold half-way between two suggestions. */
function stepThreshold({ below, suggestions, moveThreshold }: AtSuggestion, step: 1 | -1): void {
  const to = below + step;
  const before = suggestions[to - 1]?.probability ?? 1;
  const after = suggestions[to]?.probability ?? Math.max(0, before - 0.01);
  if (to >= 0 && to <= suggestions.length) moveThreshold((before + after) / 2);
}

function selectWord({ suggestions, active, passage, mark }: AtSuggestion, step: 1 | -1): void {
  const text = suggestions[active]?.text;
  if (text === undefined) return;
  mark(extendByWord(text, { start: 0, end: text.length }, passage, step));
}

export const reviewCommands: readonly Command<AtSuggestion>[] = [
  {
    id: 'suggestion',
    keys: ['ArrowUp', 'ArrowDown'],
    label: 'suggestion before, next suggestion',
    run: (at, event) => goTo(at, at.active + (isDown(event) ? 1 : -1)),
  },
  { id: 'accept', keys: ['a'], label: 'accept it', run: (at) => decideAndGoOn(at, 'accepted') },
  { id: 'refuse', keys: ['r'], label: 'refuse it', run: (at) => decideAndGoOn(at, 'refused') },
  { id: 'open', keys: ['o'], label: 'open it again', run: ({ actions }) => actions.decide('open') },
  {
    id: 'select',
    keys: ['Shift+ArrowLeft', 'Shift+ArrowRight'],
    label: 'select words, on which it is then accepted',
    run: (at, event) => selectWord(at, event?.key === 'ArrowRight' ? 1 : -1),
  },
  {
    id: 'let go',
    keys: ['Escape'],
    label: 'let go of the selected words',
    when: ({ passage }) => passage !== null,
    run: ({ mark }) => mark(null),
  },
  { id: 'instead', keys: ['i'], label: 'another code instead', run: ({ ask }) => ask('instead') },
  { id: 'as well', keys: ['w'], label: 'another code as well', run: ({ ask }) => ask('as well') },
  {
    id: 'unsure',
    keys: ['u'],
    label: 'mark or unmark as unsure',
    run: ({ actions }) => actions.unsure(),
  },
  {
    id: 'why',
    keys: ['y'],
    label: 'why it is suggested',
    run: ({ actions }) => actions.toggleReasons(),
  },
  {
    id: 'by hand',
    keys: ['h'],
    label: 'what was coded by hand, to compare',
    inMenu: true,
    run: ({ openByHand }) => openByHand(),
  },
  {
    id: 'move the threshold',
    keys: ['Shift+ArrowUp', 'Shift+ArrowDown'],
    label: 'move the line by one suggestion',
    run: (at, event) => stepThreshold(at, isDown(event) ? 1 : -1),
  },
  {
    id: 'go to the threshold',
    keys: ['l'],
    label: 'go to the line',
    inMenu: true,
    run: ({ goToThreshold }) => void goToThreshold(),
  },
];

export const reviewHelp = helpOf(reviewCommands);

/** A spot check, and the place in it where one is. */
export interface AtCheck {
  active: number;
  goTo: (to: number) => void;
  judge: (verdict: Verdict) => void;
}

const verdict = (id: string, key: string, label: string, is: Verdict): Command<AtCheck> => ({
  id,
  keys: [key],
  label,
  run: ({ active, goTo: go, judge }) => {
    judge(is);
    go(active + 1);
  },
});

export const checkCommands: readonly Command<AtCheck>[] = [
  {
    id: 'answer',
    keys: ['ArrowUp', 'ArrowDown'],
    label: 'answer before, next answer',
    run: ({ active, goTo: go }, event) => go(active + (isDown(event) ? 1 : -1)),
  },
  verdict('applies', 'a', 'the code applies', 'applies'),
  verdict('does not apply', 'r', 'the code does not apply', 'not'),
  verdict('unsure', 'u', 'unsure', 'unsure'),
];

export const checkHelp = helpOf(checkCommands);
