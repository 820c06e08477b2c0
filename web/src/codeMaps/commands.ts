import { helpOf, type Command } from '../frame/commands.js';
import type { KeyHelp } from '../frame/keys.js';
import { mapCommandTexts as texts } from './texts.js';

interface MapContext {
  /** Whether something of the map has this id: a node or a relation. */
  has: (id: string) => boolean;
  chosen: string | null;
  remove: (id: string) => void;
}

/** What has the focus on the map, by the id that it is drawn with. */
const focused = (event: KeyboardEvent | null): string | undefined =>
  event?.target instanceof Element
    ? (event.target.closest('.react-flow__node, .react-flow__edge')?.getAttribute('data-id') ??
      undefined)
    : undefined;

export const mapCommands: readonly Command<MapContext>[] = [
  {
    ...{ id: 'remove-from-map', keys: ['Delete', 'Backspace'], label: texts.remove },
    run: ({ has, chosen, remove }, event) => {
      const id = focused(event) ?? chosen;
      if (id === null || !has(id)) return false;
      remove(id);
      return true;
    },
  },
];

/** Keys of the map, those among them that it listens for itself. */
export const mapHelp: readonly KeyHelp[] = [
  { keys: '↑ ↓ ← →', does: texts.node },
  { keys: 'Enter', does: texts.choose },
  { keys: 'Esc', does: texts.none },
  ...helpOf(mapCommands),
];
