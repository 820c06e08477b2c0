import type { KeyHelp } from '../frame/keys.js';

/** The keys of the ledger, as its help tells them. */
export const ledgerKeys: readonly KeyHelp[] = [
  { keys: '↑ ↓', does: 'line before, next line' },
  { keys: '←', does: 'the whole answer' },
  { keys: 'Shift → ←', does: 'mark a passage, word by word' },
  { keys: 'type', does: 'find a code; ↑ ↓ choose among those found' },
  { keys: 'Enter', does: 'apply the code to the passage, line or answer' },
  { keys: 'Shift Enter', does: 'make what is typed a new code and apply it' },
  { keys: 'Enter (nothing typed)', does: 'settle the answer and go to the next' },
  { keys: 'Ctrl Enter', does: 'nothing applies: settle without a code' },
  { keys: 'Backspace (nothing typed)', does: 'take the last code of the line away' },
  { keys: 'Delete (nothing typed)', does: 'open a settled answer again' },
  { keys: 'Page ↑ ↓', does: 'answer before, next answer' },
];
