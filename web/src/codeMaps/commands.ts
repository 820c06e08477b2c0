import type { KeyHelp } from '../frame/keys.js';
import { mapCommandTexts as texts } from './texts.js';

/** Keys that the map itself listens for. */
export const mapHelp: readonly KeyHelp[] = [
  { keys: '↑ ↓ ← →', does: texts.node },
  { keys: 'Enter', does: texts.choose },
  { keys: 'Delete', does: texts.remove },
  { keys: 'Esc', does: texts.none },
];
