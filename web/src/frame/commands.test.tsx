import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import {
  DIGIT_KEYS,
  digitOf,
  keyNames,
  menuOf,
  runCommand,
  useGlobalCommands,
  type Command,
} from './commands.js';
import { frameCommands } from './frameCommands.js';

afterEach(cleanup);

test('keys are named as people read them, further ways to press the same left out', () => {
  const names = (...keys: string[]) => keyNames({ keys });
  expect(names('Alt+ArrowUp', 'Alt+ArrowDown')).toBe('Alt ↑ ↓');
  expect(names('Alt+KeyM')).toBe('Alt M');
  expect(names('$mod+Shift+z', '$mod+y')).toBe('Ctrl Shift Z');
  expect(names('?', 'Shift+?')).toBe('?');
  expect(names(...DIGIT_KEYS)).toBe('1 – 9');
  expect(names('Alt+(Digit[1-9])')).toBe('Alt 1 – 9');
  expect(names()).toBe('');
});

// common practice, no source: a French keyboard has its digits with Shift
test.each([
  ['a row of digits', { key: '3', code: 'Digit3' }, 3],
  ['digits with Shift', { key: '3', code: 'Digit3', shiftKey: true }, 3],
  ['the numbers at the right', { key: '7', code: 'Numpad7' }, 7],
  ['a sign where the digit needs Shift', { key: '"', code: 'Digit3' }, null],
  ['a digit with Ctrl', { key: '3', code: 'Digit3', ctrlKey: true }, null],
])('a digit is taken from %s', (_, init, expected) => {
  const pressed = jest.fn();
  const digits: Command<null> = {
    id: 'digit',
    keys: DIGIT_KEYS,
    label: 'digit',
    run: (_context, event) => pressed(digitOf(event)),
  };
  const isRun = runCommand([digits], null, new KeyboardEvent('keydown', init));
  expect(isRun).toBe(expected !== null);
  if (expected !== null) expect(pressed).toHaveBeenCalledWith(expected);
});

test('the first command that has the key and can be done is run; one that returns false leaves it', () => {
  const ran: string[] = [];
  const command = (id: string, can: boolean, result?: false): Command<null> => ({
    id,
    keys: ['Enter'],
    label: id,
    inMenu: true,
    when: () => can,
    run: () => {
      ran.push(id);
      return result;
    },
  });
  const enter = new KeyboardEvent('keydown', { key: 'Enter', code: 'Enter' });
  const commands = [command('cannot', false), command('can', true), command('later', true)];
  expect(runCommand(commands, null, enter)).toBe(true);
  expect(runCommand([command('leaves', true, false)], null, enter)).toBe(false);
  expect(ran).toEqual(['can', 'leaves']);
  expect(menuOf(commands, null).map(({ id }) => id)).toEqual(['can', 'later']);
});

test('Ctrl Z undoes on every screen, but not in a text that is being written', async () => {
  const frame = {
    openPalette: jest.fn(),
    undo: jest.fn(),
    redo: jest.fn(),
    showKeys: jest.fn(),
    signOut: jest.fn(),
  };
  function Page() {
    useGlobalCommands(frameCommands, frame);
    return <textarea aria-label="a text" />;
  }
  render(<Page />);
  const user = userEvent.setup();
  await user.keyboard('{Control>}z{/Control}');
  await user.keyboard('{Control>}{Shift>}z{/Shift}{/Control}');
  await user.keyboard('{Control>}y{/Control}');
  expect([frame.undo.mock.calls.length, frame.redo.mock.calls.length]).toEqual([1, 2]);
  await user.click(screen.getByLabelText('a text'));
  await user.keyboard('{Control>}z{/Control}?');
  expect(frame.undo).toHaveBeenCalledTimes(1);
  expect(frame.showKeys).not.toHaveBeenCalled();
  await user.keyboard('{Control>}k{/Control}');
  expect(frame.openPalette).toHaveBeenCalledTimes(1);
});
