import { expect, test } from '@jest/globals';
import { VersionedCache } from './versionedCache.js';

const MB = 2 ** 20;

/** A reading that fails on request. */
function pending() {
  let fail = () => {};
  const bytes = new Promise<number>((_, reject) => (fail = () => reject(new Error('away'))));
  return { bytes, fail };
}
const settled = () => new Promise((resolve) => setImmediate(resolve));

test('what is of the same version is read once, of another again, from what was there', () => {
  const cache = new VersionedCache<string, string>(MB);
  const asked: (string | null)[] = [];
  const read = (version: string) =>
    cache.get('a', version, (before) => {
      asked.push(before);
      return { value: `read at ${version}`, bytes: Promise.resolve(1) };
    });
  expect([read('1'), read('1'), read('2'), read('2')]).toEqual([
    'read at 1',
    'read at 1',
    'read at 2',
    'read at 2',
  ]);
  expect(asked).toEqual([null, 'read at 1']);
});

test('what failed is forgotten, but never takes something newer with it', async () => {
  const cache = new VersionedCache<string, number>(MB);
  const [old, fresh] = [pending(), pending()];
  cache.get('a', '1', () => ({ value: 1, bytes: old.bytes }));
  cache.get('a', '2', () => ({ value: 2, bytes: fresh.bytes }));
  old.fail();
  await settled();
  const again = () => cache.get('a', '2', () => ({ value: 3, bytes: Promise.resolve(1) }));
  expect(again()).toBe(2);
  fresh.fail();
  await settled();
  expect(again()).toBe(3);
});

test('what was asked for longest ago is dropped when there is no room, by bytes', async () => {
  const cache = new VersionedCache<string, string>(10 * MB);
  const put = async (key: string, bytes: number) => {
    cache.get(key, '1', () => ({ value: key, bytes: Promise.resolve(bytes) }));
    await settled();
  };
  await put('a', 4 * MB);
  await put('b', 4 * MB);
  await put('a', 4 * MB);
  await put('c', 4 * MB);
  const isKept = (key: string) =>
    cache.get(key, '1', () => ({ value: 'anew', bytes: Promise.resolve(1) })) === key;
  expect([isKept('a'), isKept('c'), isKept('b')]).toEqual([true, true, false]);
});
