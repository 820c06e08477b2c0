import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import type { DrawnCode } from '../data/codebook.js';
import { CodePicker } from './codePicker.js';

const codes = ['Fares', 'Fair queue', 'Steps'].map((name, i) => ({
  id: String(i),
  name,
  definition: '',
  themeName: null,
  people: i,
  mentions: i,
  look: { ink: '#000000', stitch: 'running' },
})) as unknown as DrawnCode[];

const onPick = jest.fn();
const onNew = jest.fn();
let user: ReturnType<typeof userEvent.setup>;
let field: HTMLInputElement;
beforeEach(() => {
  jest.clearAllMocks();
  user = userEvent.setup();
  render(
    <>
      <CodePicker label="code" codes={codes} onPick={onPick} onNew={onNew} />
      <button type="button">next</button>
    </>,
  );
  field = screen.getByRole('combobox', { name: 'code' });
});
afterEach(cleanup);

const chosen = () => screen.getByRole('option', { selected: true }).textContent;

test('letters find codes, arrows go round, Enter picks what they lead to, and the field is empty', async () => {
  await user.type(field, 'fa');
  expect(screen.getAllByRole('option')).toHaveLength(3);
  const first = chosen();
  await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}');
  expect(chosen()).toBe(first);
  await user.keyboard('{ArrowDown}');
  const second = chosen();
  await user.keyboard('{Enter}');
  const [[picked]] = onPick.mock.calls as [[DrawnCode]];
  expect(second).toContain(picked.name);
  expect(field.value).toBe('');
  // the same once more: nothing stays selected
  await user.type(field, 'fa');
  await user.keyboard('{ArrowDown}{Enter}');
  expect(onPick).toHaveBeenCalledTimes(2);
});

test('the last choice makes a code of what is typed', async () => {
  await user.type(field, 'fa');
  await user.keyboard('{ArrowUp}{Enter}');
  expect(onNew).toHaveBeenCalledWith('fa');
  expect(onPick).not.toHaveBeenCalled();
});

test('a field that is left picks nothing, and a pointer that passes puts nothing under Enter', async () => {
  await user.type(field, 'fa');
  const first = chosen();
  await user.hover(screen.getAllByRole('option')[1]!);
  expect(chosen()).toBe(first);
  await user.tab();
  expect(onPick).not.toHaveBeenCalled();
  expect(onNew).not.toHaveBeenCalled();
  await user.click(screen.getAllByRole('option')[1]!);
  expect(onPick).toHaveBeenCalledTimes(1);
});

test('Escape empties the field; Home and End move in its text, and not in the list', async () => {
  await user.type(field, 'fa');
  const first = chosen();
  await user.keyboard('{End}');
  expect(chosen()).toBe(first);
  await user.keyboard('{Home}X');
  expect(field.value).toBe('Xfa');
  await user.keyboard('{Escape}');
  expect(field.value).toBe('');
  expect(screen.queryAllByRole('option')).toHaveLength(0);
});
