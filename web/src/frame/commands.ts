import { matchKeyBindingPress, parseKeybinding } from 'tinykeys';
import { useEffect, useLayoutEffect } from 'react';
import { isKeyAlone } from './typing.js';
import { useKeyHelp, useScreenActions, type KeyHelp } from './keys.js';

/**
 * Something that can be done on a screen. Keys, help, menus and the palette are all made of these.
 *
 * @typeParam Context what it is done with: where one is, and what the screen offers
 */
export interface Command<Context> {
  id: string;
  /** Key presses as tinykeys writes them, any of which runs it: "Alt+KeyU", "$mod+Enter", "([1-9])". */
  keys: readonly string[];
  /** The keys as people read them, where names made of `keys` would not do. */
  shown?: string;
  /** What it does, beginning in lower case. */
  label: string;
  /** Whether it stands in the menu of the screen, too. */
  inMenu?: true;
  /** Whether it can be done; what cannot leaves its key to others. */
  when?: (context: Context) => boolean;
  /** @returns false where the key is left to others after all */
  run: (context: Context, event: KeyboardEvent | null) => unknown;
}

const SYMBOLS: Record<string, string> = {
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  PageUp: 'Page ↑',
  PageDown: 'Page ↓',
  Escape: 'Esc',
  Control: 'Ctrl',
  Meta: '⌘',
};

const nameOf = (key: string) =>
  SYMBOLS[key] ??
  key.replace(/^(?:Key|Digit)/u, '').replace(/^[a-z]$/u, (letter) => letter.toUpperCase());

/** The keys of a command as people read them: "Alt ↑ ↓". */
export function keyNames({ keys, shown }: Pick<Command<never>, 'keys' | 'shown'>): string {
  if (shown !== undefined) return shown;
  const presses = keys.map((key) => parseKeybinding(key)[0]!);
  const modifiers = presses[0]![0].map(nameOf);
  return [...modifiers, ...presses.map(([, key]) => nameOf(String(key)))].join(' ');
}

/** A label as it stands in a menu. */
export const menuLabel = (label: string): string => label.charAt(0).toUpperCase() + label.slice(1);

/** Commands as the help of the screen lists them. */
export const helpOf = <Context>(commands: readonly Command<Context>[]): KeyHelp[] =>
  commands.map((command) => ({ keys: keyNames(command), does: command.label }));

/** Runs the first command that has the key and can be done. @returns whether there was one */
export function runCommand<Context>(
  commands: readonly Command<Context>[],
  context: Context,
  event: KeyboardEvent,
): boolean {
  const found = commands.find(
    ({ keys, when }) =>
      keys.some((key) => matchKeyBindingPress(event, parseKeybinding(key)[0]!)) &&
      (when?.(context) ?? true),
  );
  return found !== undefined && found.run(context, event) !== false;
}

/** Gives the palette those commands of a screen that stand in its menu. */
export function usePaletteCommands<Context>(
  commands: readonly Command<Context>[],
  context: Context,
): void {
  useScreenActions(() =>
    commands
      .filter(({ inMenu, when }) => inMenu && (when?.(context) ?? true))
      .map((command) => ({
        id: command.id,
        keys: keyNames(command),
        does: command.label,
        run: () => void command.run(context, null),
      })),
  );
}

/** Listens for the keys of a screen's commands wherever nothing is being typed, and tells the help of them. */
export function useCommands<Context>(
  commands: readonly Command<Context>[],
  context: Context,
  help: readonly KeyHelp[],
): void {
  useKeyHelp(help);
  usePaletteCommands(commands, context);
  // listens again with every drawing, since what a key does follows from all that is drawn; before it is painted, so
  // that no key is lost that is pressed as soon as the screen is seen
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!isKeyAlone(event) || event.target instanceof HTMLInputElement) return;
      if (runCommand(commands, context, event)) event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
}

/** Listens for keys that do the same on every screen. */
export function useGlobalCommands<Context>(
  commands: readonly Command<Context>[],
  context: Context,
): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (runCommand(commands, context, event)) event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
}
