import { afterAll, afterEach, beforeAll, beforeEach, expect, jest, test } from '@jest/globals';
import { QueryObserver } from '@tanstack/react-query';

// the window that keys are pressed in
const page = new EventTarget();
const press = () => page.dispatchEvent(new Event('keydown'));
let data: typeof import('./queryClient.js');
const key = ['codebook', 1];
let fetched: number;
let answer: () => Promise<string>;
let stop: () => void;

beforeAll(async () => {
  jest.useFakeTimers({ doNotFake: ['queueMicrotask', 'nextTick'] });
  globalThis.addEventListener = page.addEventListener.bind(page);
  data = await import('./queryClient.js');
});
afterAll(() => {
  jest.useRealTimers();
});

beforeEach(async () => {
  fetched = 0;
  answer = () => Promise.resolve(`as of fetch ${fetched}`);
  const shown = new QueryObserver(data.queryClient, {
    queryKey: key,
    queryFn: () => {
      fetched += 1;
      return answer();
    },
  });
  stop = shown.subscribe(() => {});
  await pass(0);
  expect(fetched).toBe(1);
});
afterEach(async () => {
  stop();
  // what is still to come has come
  await pass(5000);
  data.queryClient.clear();
});

const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);
/** Makes a change that takes so long to be saved. */
const change = (made: object, ms = 10) =>
  data.queryClient
    .getMutationCache()
    .build(data.queryClient, {
      ...made,
      mutationFn: () => new Promise<void>((resolve) => setTimeout(resolve, ms)),
    })
    .execute(undefined);

test('what a change made stale is fetched when it is saved', async () => {
  void change(data.asChange('codebook'));
  await pass(9);
  expect(fetched).toBe(1);
  await pass(1);
  expect(fetched).toBe(2);
});

test('what is done key by key is followed when the keys rest, those of typing too', async () => {
  void change(data.asKeyedChange('codebook'));
  await pass(410);
  press();
  await pass(499);
  expect(fetched).toBe(1);
  await pass(1);
  expect(fetched).toBe(2);
  await pass(5000);
  expect(fetched).toBe(2);
});

test('who types on and on is not left behind', async () => {
  void change(data.asKeyedChange('codebook'));
  for (let n = 0; n < 14; n++) {
    await pass(200);
    press();
  }
  expect(fetched).toBe(1);
  for (let n = 0; n < 2; n++) {
    await pass(200);
    press();
  }
  expect(fetched).toBe(2);
});

test('while one change after another is made, the last brings all up to date', async () => {
  void change(data.asChange('codebook'), 10);
  void change(data.asChange('codebook'), 10);
  await pass(15);
  // they are sent one after the other
  expect(data.queryClient.isMutating()).toBe(1);
  expect(fetched).toBe(1);
  await pass(5);
  expect(fetched).toBe(2);
});

test('what was on its way does not overwrite what is drawn over it, and is asked for again', async () => {
  let arrive: (old: string) => void = () => {};
  answer = () => new Promise((resolve) => (arrive = resolve));
  void data.queryClient.refetchQueries({ queryKey: key });
  expect(fetched).toBe(2);
  data.holdFetches(key);
  data.queryClient.setQueryData(key, 'drawn');
  void change(data.asKeyedChange());
  arrive('from before the change');
  await pass(20);
  expect(data.queryClient.getQueryData(key)).toBe('drawn');
  answer = () => Promise.resolve('from after the change');
  await pass(500);
  expect(data.queryClient.getQueryData(key)).toBe('from after the change');
});

test('what somebody else changed is fetched when one’s own change is saved', async () => {
  void change(data.asChange());
  await pass(5);
  await data.refresh(({ queryKey }) => queryKey[0] === 'codebook');
  expect(fetched).toBe(1);
  await pass(5);
  expect(fetched).toBe(2);
  await data.refresh(({ queryKey }) => queryKey[0] === 'codebook');
  expect(fetched).toBe(3);
});
