import type { KeyHelp } from '../frame/keys.js';

/** The keys of the ledger, as its help tells them. */
export const ledgerKeys: readonly KeyHelp[] = [
  { keys: '↑ ↓', does: 'line before, next line' },
  { keys: '←', does: 'the whole answer' },
  { keys: 'Shift → ←', does: 'select a passage: move its end by a word' },
  { keys: 'Alt Shift → ←', does: 'move the start of the passage by a word' },
  { keys: 'type', does: 'find a code; ↑ ↓ choose among those found' },
  { keys: 'Enter', does: 'apply the code to the passage, line or answer' },
  {
    keys: 'Shift Enter',
    does: 'make what is typed a new code and apply it; “theme / code” names its theme',
  },
  { keys: '1 – 9', does: 'apply the code pinned under the key' },
  { keys: 'Alt 1 – 9', does: 'pin the code found under the key' },
  { keys: 'Enter (nothing typed)', does: 'settle the answer and go to the next' },
  { keys: 'Ctrl Enter', does: 'nothing applies: settle without a code' },
  { keys: 'Backspace (nothing typed)', does: 'remove the last code of the line' },
  { keys: 'Delete (nothing typed)', does: 'open a settled answer again' },
  { keys: 'Alt X', does: 'another code in place of the line’s last' },
  { keys: 'Alt P', does: 'move the line’s last code to the selected passage' },
  { keys: 'Alt E', does: 'pin the line’s last code as an example' },
  { keys: 'Alt A', does: 'accept the most likely suggestion of the answer' },
  { keys: 'Alt O', does: 'refuse the most likely suggestion of the answer' },
  { keys: 'Alt B', does: 'code it as the answer before, where that is nearly the same' },
  { keys: 'Alt U', does: 'mark or unmark as unsure' },
  { keys: 'Alt M', does: 'mark the line or passage, to come back to it' },
  { keys: 'Alt N', does: 'write a note on the line or passage' },
  { keys: 'Alt S', does: 'split the line before the selected words' },
  { keys: 'Alt J', does: 'join the line with the one before' },
  { keys: 'Alt R', does: 'the respondent: background, other answers, notes' },
  { keys: 'Page ↑ ↓', does: 'answer before, next answer' },
  { keys: 'Ctrl Home End', does: 'first answer, last answer' },
];

/** The same where answers are read one by one with what the models propose. */
export const readingKeys: readonly KeyHelp[] = [
  { keys: 'Enter', does: 'accept exactly what is shown, settle, and go to the next' },
  { keys: '1 – 9', does: 'remove the proposal with this digit, or apply the code that has it' },
  { keys: 'Backspace', does: 'remove the last of what is shown' },
  { keys: 'type', does: 'find another code to apply' },
  { keys: 'Ctrl Enter', does: 'nothing applies: settle without a code' },
  ...ledgerKeys.filter(
    ({ keys }) => !/^(?:Enter|Ctrl Enter|Backspace|type|1 –|Alt [AO1])/u.test(keys),
  ),
];
