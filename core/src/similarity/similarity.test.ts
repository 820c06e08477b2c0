import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { likeThese } from './likeThese.js';
import { nearDuplicates } from './nearDuplicates.js';
import { orderTextsBySimilarity, orderBySimilarity } from './orderBySimilarity.js';

describe('similarity', () => {
  const topics = ['late boat again', 'fare too high', 'crew was kind', 'steps are steep'];
  const texts = Array.from(
    { length: 40 },
    (_, i) => `${topics[i % 4]!} ${'really so very'.split(' ')[i % 3]!}`,
  );

  test('every text stands once, those of one topic together, always in the same order', () => {
    const order = orderBySimilarity(texts);
    expect([...order].sort((x, y) => x - y)).toEqual(texts.map((_, i) => i));
    expect(orderBySimilarity(texts)).toEqual(order);
    const changes = order.slice(1).filter((i, place) => i % 4 !== order[place]! % 4).length;
    // 4 topics could not be laid out with fewer than 3 changes
    expect(changes).toBe(3);
    expect(orderBySimilarity(['', 'x', ''])).toHaveLength(3);
  });

  test('texts that share no word are alike by their meaning, where they were read for it', () => {
    // two topics, each said in words of its own by everybody; the meaning tells which topic it is
    const said = Array.from({ length: 40 }, (_, i) => `w${i} v${i} u${i % 3}`);
    const vectors = {
      size: 16,
      of: (text: string) => {
        const i = said.indexOf(text);
        const vector = Float32Array.from({ length: 16 }, (_, d) => (d === 2 + (i % 14) ? 0.3 : 0));
        vector[i % 2] = 1;
        return vector.map((one) => one / Math.hypot(...vector));
      },
    };
    const order = orderBySimilarity(said, vectors);
    expect(order.toSorted((x, y) => x - y)).toEqual(said.map((_, i) => i));
    const changes = order.slice(1).filter((i, place) => i % 2 !== order[place]! % 2).length;
    expect(changes).toBe(1);
    const likeness = likeThese(said, [0, 2], vectors);
    for (const [i, like] of likeness.entries()) expect(like > 0.2).toBe(i % 2 === 0);
    // with fewer texts than tell what is common to all, words alone count
    expect(likeThese(said.slice(0, 9), [0], vectors)).toEqual(likeThese(said.slice(0, 9), [0]));
  });

  test('near duplicates are told exactly, and stand one after the other', () => {
    const jaccard = (x: string, y: string) => {
      const runs = (text: string) =>
        new Set(Array.from({ length: text.length - 4 }, (_, i) => text.slice(i, i + 5)));
      const [one, other] = [runs(x), runs(y)];
      const common = [...one].filter((run) => other.has(run)).length;
      return common / (one.size + other.size - common);
    };
    const base = 'the last boat back to tye leaves far too early for anybody with a job';
    const letter = fc.constantFrom(...'abcdefghij klmnop');
    const edit = fc.array(fc.tuple(fc.nat(base.length - 1), letter), { maxLength: 4 });
    fc.assert(
      fc.property(fc.array(edit, { minLength: 2, maxLength: 6 }), (edits) => {
        const texts = edits.map((changes) => {
          const letters = [...base];
          for (const [at, to] of changes) letters[at] = to;
          // neither folded nor trimmed away
          return `x${letters.join('').replaceAll(/\s+/gu, ' ')}x`;
        });
        const firstOf = nearDuplicates(texts);
        for (const [i, x] of texts.entries()) {
          const alike = texts.some((y, j) => j !== i && jaccard(x, y) >= 0.8);
          const alone = firstOf[i] === i && !firstOf.some((first, j) => j !== i && first === i);
          expect(alone).toBe(!alike);
        }
      }),
    );
    const { order, near } = orderTextsBySimilarity([base, 'late', `${base} now`, 'dear']);
    expect(order.toSorted()).toEqual([0, 1, 2, 3]);
    expect(order[order.indexOf(0) + 1]).toBe(2);
    expect(near.map((isNear, place) => isNear && order[place])).toEqual(
      order.map((i) => i === 2 && 2),
    );
  });

  test('the most similar to some texts are of their topic', () => {
    const likeness = likeThese(texts, [0, 4]);
    for (const [i, like] of likeness.entries()) expect(like > 0.5).toBe(i % 4 === 0);
  });
});
