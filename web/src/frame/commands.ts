import { matchKeyBindingPress, parseKeybinding, type KeyBindingPress } from 'tinykeys';
import { useLayoutEffect } from 'react';
import { isKeyAlone } from './typing.js';
import { useKeyHelp, useScreenActions, type KeyHelp, type ScreenAction } from './keys.js';

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

/** The digits 1 to 9, also where a keyboard has them with Shift. */
export const DIGIT_KEYS = ['([1-9])', 'Shift+([1-9])'];

/** Which digit was pressed, in the row of digits of any layout or among the numbers at the right. */
export const digitOf = (event: KeyboardEvent | null): number =>
  Number(/^[1-9]$/u.exec(event?.key ?? '')?.[0] ?? event?.code.slice(-1));

const SYMBOLS: Record<string, string> = {
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  Escape: 'Esc',
  Control: 'Ctrl',
  Meta: '⌘',
};

function nameOf(key: string | RegExp): string {
  if (typeof key !== 'string') return '1 – 9';
  const name = key.replace(/^(?:Key|Digit)/u, '');
  return SYMBOLS[key] ?? (name.length === 1 ? name.toUpperCase() : name);
}

const presses = new Map<string, KeyBindingPress>();
/** A press as tinykeys matches it; parsed once. */
function pressOf(key: string): KeyBindingPress {
  const press = presses.get(key) ?? parseKeybinding(key)[0]!;
  presses.set(key, press);
  return press;
}

/** The keys of a command as people read them: "Alt ↑ ↓". Further ways to press the same are left out. */
export function keyNames({ keys, shown }: Pick<Command<never>, 'keys' | 'shown'>): string {
  if (shown !== undefined) return shown;
  const all = keys.map(pressOf);
  const modifiers = all[0]?.[0] ?? [];
  const alike = all.filter(([others]) => others.join('+') === modifiers.join('+'));
  return [...modifiers, ...alike.map(([, key]) => key)].map(nameOf).join(' ');
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
      keys.some((key) => matchKeyBindingPress(event, pressOf(key))) && (when?.(context) ?? true),
  );
  return found !== undefined && found.run(context, event) !== false;
}

/** Those commands that stand in a menu and can be done, each ready to be run. */
export const menuOf = <Context>(
  commands: readonly Command<Context>[],
  context: Context,
): ScreenAction[] =>
  commands
    .filter(({ inMenu, when }) => inMenu && (when?.(context) ?? true))
    .map((command) => ({
      id: command.id,
      keys: keyNames(command),
      does: command.label,
      run: () => void command.run(context, null),
    }));

/** Gives the palette those commands of a screen that stand in its menu. */
export const usePaletteCommands = <Context>(
  commands: readonly Command<Context>[],
  context: Context,
): void => useScreenActions(() => menuOf(commands, context));

/** Listens for keys with what was drawn last, since what a key does follows from all of it. */
function useKeys<Context>(
  commands: readonly Command<Context>[],
  context: Context,
  isOurs: (event: KeyboardEvent) => boolean,
): void {
  // before it is painted, so that no key is lost that is pressed as soon as the screen is seen
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isOurs(event) && runCommand(commands, context, event)) event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
}

/** Listens for the keys of a screen's commands wherever nothing is being typed, and lists them in the help. */
export function useCommands<Context>(
  commands: readonly Command<Context>[],
  context: Context,
  help: readonly KeyHelp[],
): void {
  useKeyHelp(help);
  usePaletteCommands(commands, context);
  useKeys(
    commands,
    context,
    (event) => isKeyAlone(event) && !(event.target instanceof HTMLInputElement),
  );
}

/** Listens for keys that do the same on every screen. */
export const useGlobalCommands = <Context>(
  commands: readonly Command<Context>[],
  context: Context,
): void => useKeys(commands, context, () => true);
