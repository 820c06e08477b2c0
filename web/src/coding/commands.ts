import { DIGIT_KEYS, digitOf, helpOf, type Command } from '../frame/commands.js';
import type { AnswerPlace } from './answerPlace.js';
import type { AnswerActions } from './useAnswerActions.js';
import { WHOLE } from './useLedgerPosition.js';

/** The place where one is in the ledger, and what the field there offers. */
export interface AtAnswer extends Pick<AnswerPlace, 'place' | 'position'> {
  actions: AnswerActions;
  /** Whether something is typed in the field. */
  isTyped: boolean;
  hasFound: boolean;
  applyPinned: (digit: number) => void;
  pinFound: (digit: number) => void;
  isPinned: (digit: number) => boolean;
  writeNote: () => void;
  showRespondent: () => void;
  showHelp: () => void;
  /** Whether the person sees other answers than those that are assigned to them. */
  seesAll: boolean;
}

type LedgerCommand = Command<AtAnswer>;

const isEmpty = ({ isTyped }: AtAnswer) => !isTyped;

/** Where one goes, and what is selected there. */
const moves: readonly LedgerCommand[] = [
  {
    id: 'line',
    keys: ['ArrowUp', 'ArrowDown'],
    label: 'line before, next line',
    when: isEmpty,
    run: ({ position }, event) => position.moveLine(event?.key === 'ArrowDown' ? 1 : -1),
  },
  {
    id: 'whole answer',
    keys: ['ArrowLeft'],
    label: 'the whole answer',
    when: isEmpty,
    run: ({ place, position }) => position.goTo({ ...place, line: WHOLE, passage: null }),
  },
  {
    id: 'back to the line',
    keys: ['ArrowRight'],
    label: 'back to the line',
    when: isEmpty,
    run: ({ place, position }) =>
      position.goTo({ ...place, line: Math.max(0, place.line), passage: null }),
  },
  {
    id: 'select',
    keys: ['Shift+ArrowRight', 'Shift+ArrowLeft'],
    label: 'select a passage: move its end by a word',
    when: isEmpty,
    run: ({ actions }, event) => actions.selectWord(event?.key === 'ArrowRight' ? 1 : -1),
  },
  {
    id: 'select its start',
    keys: ['Alt+Shift+ArrowRight', 'Alt+Shift+ArrowLeft'],
    label: 'move the start of the passage by a word',
    run: ({ actions }, event) => actions.selectWord(event?.key === 'ArrowRight' ? 1 : -1, 'start'),
  },
  {
    id: 'let go',
    keys: ['Escape'],
    label: 'let go of what is selected',
    when: ({ isTyped, place }) => !isTyped && Boolean(place.passage ?? place.replacing),
    run: ({ place: { answer, line }, position }) => position.goTo({ answer, line, passage: null }),
  },
  {
    id: 'answer',
    keys: ['PageUp', 'PageDown'],
    shown: 'Page ↑ ↓',
    label: 'answer before, next answer',
    when: isEmpty,
    run: ({ position }, event) => position.moveAnswer(event?.key === 'PageDown' ? 1 : -1),
  },
  {
    id: 'first or last answer',
    keys: ['$mod+Home', '$mod+End'],
    label: 'first answer, last answer',
    when: isEmpty,
    run: ({ position }, event) => position.moveAnswer(event?.key === 'End' ? Infinity : -Infinity),
  },
];

/** How answers are coded and settled in the ledger. */
const settling: readonly LedgerCommand[] = [
  {
    id: 'pinned',
    keys: DIGIT_KEYS,
    label: 'apply the code pinned under the key',
    when: isEmpty,
    run: ({ isPinned, applyPinned }, event) =>
      isPinned(digitOf(event)) && applyPinned(digitOf(event)),
  },
  {
    id: 'pin',
    keys: ['Alt+(Digit[1-9])'],
    label: 'pin the code found under the key',
    when: ({ hasFound }) => hasFound,
    run: ({ pinFound }, event) => pinFound(digitOf(event)),
  },
  {
    id: 'settle',
    keys: ['Enter'],
    shown: 'Enter (nothing typed)',
    label: 'settle the answer and go to the next',
    when: isEmpty,
    run: ({ actions }) => actions.settle(),
  },
  {
    id: 'remove last',
    keys: ['Backspace'],
    shown: 'Backspace (nothing typed)',
    label: 'remove the last code of the line',
    when: isEmpty,
    run: ({ actions }) => actions.removeLast(),
  },
];

/** How answers are read one by one with what the models propose. */
const readingOn: readonly LedgerCommand[] = [
  {
    id: 'accept what is shown',
    keys: ['Enter'],
    label: 'accept exactly what is shown, settle, and go to the next',
    when: ({ isTyped, actions }) => !isTyped && actions.isRead,
    run: ({ actions }) => actions.acceptShown(),
  },
  {
    id: 'proposal',
    keys: DIGIT_KEYS,
    label: 'remove the proposal with this digit, or apply the code that has it',
    when: isEmpty,
    run: ({ actions }, event) => actions.press(digitOf(event)),
  },
  {
    id: 'remove last shown',
    keys: ['Backspace'],
    label: 'remove the last of what is shown',
    when: isEmpty,
    run: ({ actions }) => actions.removeLastShown() || actions.removeLast(),
  },
];

/** What can be done at a place; it stands in its menu, too. */
const atPlace: readonly LedgerCommand[] = [
  {
    id: 'mark',
    keys: ['Alt+KeyM'],
    label: 'mark the line or passage, to come back to it',
    run: ({ actions }) => actions.mark(),
  },
  {
    id: 'note',
    keys: ['Alt+KeyN'],
    label: 'write a note on the line or passage',
    run: ({ writeNote }) => writeNote(),
  },
  {
    id: 'unsure',
    keys: ['Alt+KeyU'],
    label: 'mark or unmark as unsure',
    run: ({ actions }) => actions.unsure(),
  },
  {
    id: 'exchange',
    keys: ['Alt+KeyX'],
    label: 'another code in place of the line’s last',
    run: ({ actions }) => actions.exchange(),
  },
  {
    id: 'move to passage',
    keys: ['Alt+KeyP'],
    label: 'move the line’s last code to the selected passage',
    run: ({ actions }) => actions.moveToPassage(),
  },
  {
    id: 'typical',
    keys: ['Alt+KeyE'],
    label: 'pin the line’s last code as an example',
    run: ({ actions }) => actions.typical(),
  },
  {
    id: 'accept',
    keys: ['Alt+KeyA'],
    label: 'accept the most likely suggestion of the answer',
    run: ({ actions }) => actions.decide(true),
  },
  {
    id: 'refuse',
    keys: ['Alt+KeyO'],
    label: 'refuse the most likely suggestion of the answer',
    run: ({ actions }) => actions.decide(false),
  },
  {
    id: 'as before',
    keys: ['Alt+KeyB'],
    label: 'code it as the answer before, where that is nearly the same',
    run: ({ actions }) => actions.asBefore(),
  },
  {
    id: 'split',
    keys: ['Alt+KeyS'],
    label: 'split the line before the selected words',
    run: ({ actions }) => actions.split(),
  },
  {
    id: 'join',
    keys: ['Alt+KeyJ'],
    label: 'join the line with the one before',
    run: ({ actions }) => actions.join(),
  },
  {
    id: 'nothing applies',
    keys: ['$mod+Enter'],
    label: 'nothing applies: settle without a code',
    when: isEmpty,
    run: ({ actions }) => actions.nothingApplies(),
  },
  {
    id: 'reopen',
    keys: ['Delete'],
    shown: 'Delete (nothing typed)',
    label: 'open a settled answer again',
    when: isEmpty,
    run: ({ actions }) => actions.reopen(),
  },
  {
    id: 'respondent',
    keys: ['Alt+KeyR'],
    label: 'the respondent: background, other answers, notes',
    when: ({ seesAll }) => seesAll,
    run: ({ showRespondent }) => showRespondent(),
  },
  {
    id: 'help',
    keys: ['Alt+KeyH'],
    label: 'help with a hard answer: its gist, its words, codes that may fit',
    when: ({ seesAll }) => seesAll,
    run: ({ showHelp }) => showHelp(),
  },
];
const inMenu = atPlace.map((command): LedgerCommand => ({ ...command, inMenu: true }));

/** What the field itself does with keys while a code is looked for. */
const typing = [
  { keys: 'type', does: 'find a code; ↑ ↓ choose among those found' },
  { keys: 'Enter', does: 'apply the code to the passage, line or answer' },
  {
    keys: 'Shift Enter',
    does: 'make what is typed a new code and apply it; “theme / code” names its theme',
  },
];

export const ledgerCommands: readonly LedgerCommand[] = [...settling, ...inMenu, ...moves];
// what stands first runs; an answer of the sample is settled here as everywhere
export const readingCommands: readonly LedgerCommand[] = [
  ...readingOn,
  ...settling.filter(({ id }) => id === 'settle' || id === 'pin'),
  ...inMenu,
  ...moves,
];

export const ledgerHelp = [...typing, ...helpOf(ledgerCommands)];
export const readingHelp = [
  ...helpOf(readingOn),
  ...typing.slice(0, 1),
  ...helpOf([...inMenu.filter(({ id }) => id !== 'accept' && id !== 'refuse'), ...moves]),
];
