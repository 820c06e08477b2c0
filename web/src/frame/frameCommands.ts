import { helpOf, type Command } from './commands.js';
import { isTyping } from './typing.js';

/** What the frame around every page of a study can do. */
export interface FrameActions {
  openPalette: () => void;
  undo: () => void;
  redo: () => void;
  showKeys: () => void;
  signOut: () => void;
}

/** Leaves a key to a text that is being written. */
const unlessTyping =
  (act: (frame: FrameActions) => void): Command<FrameActions>['run'] =>
  (frame, event) =>
    event && isTyping(event.target) ? false : act(frame);

/** What can be done on every screen. */
export const frameCommands: readonly Command<FrameActions>[] = [
  {
    id: 'palette',
    keys: ['$mod+k'],
    label: 'go to any stop, question, code or action',
    run: ({ openPalette }) => openPalette(),
  },
  {
    id: 'undo',
    keys: ['$mod+z'],
    label: 'undo the last change',
    inMenu: true,
    run: unlessTyping(({ undo }) => undo()),
  },
  {
    id: 'redo',
    keys: ['$mod+Shift+z', '$mod+y'],
    label: 'redo what was undone',
    inMenu: true,
    run: unlessTyping(({ redo }) => redo()),
  },
  {
    id: 'keys',
    keys: ['?', 'Shift+?'],
    label: 'the keys of this screen',
    inMenu: true,
    run: unlessTyping(({ showKeys }) => showKeys()),
  },
  {
    id: 'sign out',
    keys: [],
    label: 'sign out',
    inMenu: true,
    run: ({ signOut }) => signOut(),
  },
];

export const frameHelp = [
  ...helpOf(frameCommands.filter(({ keys }) => keys.length > 0)),
  { keys: 'Esc', does: 'close the drawer' },
];
