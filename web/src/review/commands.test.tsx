import { afterEach, expect, jest, test } from '@jest/globals';
import type { SuggestedAnswer } from '@yellow-thread/contract';
import { cleanup, render } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { KeysProvider } from '../frame/keys.js';
import { useCommands } from '../frame/commands.js';
import { reviewCommands, reviewHelp, type AtSuggestion } from './commands.js';

const suggestions = [0.9, 0.6, 0.2].map((probability, i): SuggestedAnswer => ({
  responseId: i + 1,
  externalId: `R${i + 1}`,
  background: {},
  text: 'the fares are too high',
  probability,
  evidence: [],
  fromWords: null,
  fromMeaning: null,
  state: 'open',
  bulk: false,
  by: null,
  mentions: [],
  unsure: null,
  count: 1,
}));

type Props = AtSuggestion;

function List(props: Props) {
  useCommands(reviewCommands, props, reviewHelp);
  return <input aria-label="another field" />;
}

function draw(props: Partial<Props> = {}) {
  const acts = {
    actions: { decide: jest.fn(), unsure: jest.fn() } as unknown as Props['actions'],
    setActive: jest.fn(),
    mark: jest.fn(),
    ask: jest.fn(),
    moveThreshold: jest.fn(),
    goToThreshold: jest.fn(() => Promise.resolve()),
    openByHand: jest.fn(),
  };
  const page = render(
    <KeysProvider>
      <List suggestions={suggestions} active={0} passage={null} below={2} {...acts} {...props} />
    </KeysProvider>,
  );
  return { ...acts, page, keys: userEvent.setup() };
}
afterEach(cleanup);

test('A accepts and goes on to the next suggestion, and stays at the last one', async () => {
  const { actions, setActive, keys } = draw({ active: 2 });
  await keys.keyboard('a');
  expect(actions.decide).toHaveBeenCalledWith('accepted');
  expect(setActive).toHaveBeenCalledWith(2);
});

test('Shift with an arrow moves the threshold half-way between two suggestions', async () => {
  const { moveThreshold, keys } = draw();
  await keys.keyboard('{Shift>}{ArrowUp}{/Shift}');
  expect(moveThreshold).toHaveBeenLastCalledWith((0.9 + 0.6) / 2);
  await keys.keyboard('{Shift>}{ArrowDown}{/Shift}');
  expect(moveThreshold).toHaveBeenLastCalledWith((0.2 + 0.19) / 2);
});

test('Shift and the right arrow selects the first word, Escape lets go of it', async () => {
  const { mark, keys, page } = draw();
  await keys.keyboard('{Shift>}{ArrowRight}{/Shift}');
  expect(mark).toHaveBeenCalledWith({ start: 0, end: 3 });
  page.unmount();
  const again = draw({ passage: { start: 0, end: 3 } });
  await again.keys.keyboard('{Escape}');
  expect(again.mark).toHaveBeenCalledWith(null);
});

test('what is typed into a field decides nothing', async () => {
  const { actions, keys, page } = draw();
  await keys.type(page.getByLabelText('another field'), 'ar');
  expect(actions.decide).not.toHaveBeenCalled();
});
