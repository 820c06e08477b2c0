import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';

// a page and its storage as a browser has them
const stored = new Map<string, string>();
let isFull = false;
const before = new Map(
  (['document', 'localStorage', 'sessionStorage', 'fetch', 'addEventListener'] as const).map(
    (name) => [name, Object.getOwnPropertyDescriptor(globalThis, name)],
  ),
);
let answers: (() => Promise<Response>)[];
let sent: string[];
let sendKept: typeof import('./outbox.js').sendKept;

beforeAll(async () => {
  const define = (name: string, value: unknown) =>
    Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });
  define('addEventListener', () => {});
  ({ sendKept } = await import('./outbox.js'));
  define('document', { hidden: true });
  define('localStorage', {
    getItem: (key: string) => stored.get(key) ?? null,
    setItem: (key: string, value: string) => {
      if (isFull) throw new DOMException('full', 'QuotaExceededError');
      stored.set(key, value);
    },
    removeItem: (key: string) => stored.delete(key),
  });
  // no group is looked at
  define('sessionStorage', { getItem: () => null });
  define('fetch', (path: string, { body }: RequestInit) => {
    sent.push(`${path} ${typeof body === 'string' ? body : ''}`);
    return answers.shift()!();
  });
});
afterAll(() => {
  for (const [name, descriptor] of before)
    if (descriptor) Object.defineProperty(globalThis, name, descriptor);
    else Reflect.deleteProperty(globalThis, name);
});
beforeEach(() => {
  stored.clear();
  isFull = false;
  sent = [];
});

const reply = (status: number, body: object) => () =>
  Promise.resolve(new Response(JSON.stringify(body), { status }));
const done = reply(200, { done: true });
const refused = reply(409, { code: 'gone', sentence: 'It is gone.' });
const away = () => Promise.reject(new TypeError('away'));
const change = (id: string) => ({
  id,
  method: 'POST' as const,
  path: '/api/studies/1/mentions',
  body: { id },
});
const keptOf = (account: number) =>
  (JSON.parse(stored.get(`yellow-thread outbox ${account}`) ?? '[]') as { id: string }[]).map(
    ({ id }) => id,
  );

test('a change is kept until the server has said yes or no, each person’s apart', async () => {
  let arrive: (reply: Response) => void = () => {};
  answers = [() => new Promise((resolve) => (arrive = resolve)), away, refused];
  const sending = sendKept(7, change('a'));
  expect(keptOf(7)).toEqual(['a']);
  await expect(sendKept(7, change('b'))).rejects.toThrow(TypeError);
  expect(keptOf(7)).toEqual(['a', 'b']);
  expect(keptOf(8)).toEqual([]);
  arrive(await done());
  await sending;
  expect(keptOf(7)).toEqual(['b']);
  await expect(sendKept(7, change('b'))).rejects.toThrow('It is gone.');
  expect(keptOf(7)).toEqual([]);
});

test('one that is sent again is kept once, and waits while the session is out of date', async () => {
  answers = [away, reply(401, { code: 'not_signed_in', sentence: 'Enter first.' }), done];
  await expect(sendKept(7, change('a'))).rejects.toThrow(TypeError);
  await expect(sendKept(7, change('a'))).rejects.toThrow('Enter first.');
  expect(keptOf(7)).toEqual(['a']);
  await sendKept(7, change('a'));
  expect(keptOf(7)).toEqual([]);
  expect(sent).toEqual(Array(3).fill('/api/studies/1/mentions {"id":"a"}'));
});

test('without room in the browser, or with what it cannot read there, it is sent all the same', async () => {
  stored.set('yellow-thread outbox 7', '{"of": "another version"}');
  isFull = true;
  answers = [done];
  await sendKept(7, change('a'));
  expect(sent).toHaveLength(1);
});
