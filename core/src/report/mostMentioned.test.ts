import { expect, test } from '@jest/globals';
import { mostMentioned } from './mostMentioned.js';

const row = (id: string, kind: 'theme' | 'code', people: number) => ({
  id,
  kind,
  cells: [{ people, share: people / 100, estimated: null }],
});

test('the most mentioned codes are taken from wherever they stand, each once; themes where there is nothing else', () => {
  const rows = [
    row('A', 'theme', 60),
    row('a', 'code', 5),
    row('b', 'code', 40),
    row('B', 'theme', 50),
    row('c', 'code', 30),
    row('b', 'code', 40),
  ];
  expect(mostMentioned(rows, 2).map(({ id }) => id)).toEqual(['b', 'c']);
  const themes = rows.filter(({ kind }) => kind === 'theme').toReversed();
  expect(mostMentioned(themes, 10).map(({ id }) => id)).toEqual(['A', 'B']);
});
