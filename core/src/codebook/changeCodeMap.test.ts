import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { changeCodeMap, type MapContent } from './index.js';

type Content = MapContent<
  { id: string; x: number },
  { id: string; fromNode: string; toNode: string },
  { id: string; nodeId: string | null; relationId: string | null }
>;
const id = (kind: string) => fc.integer({ min: 0, max: 4 }).map((n) => `${kind}${n}`);
const content: fc.Arbitrary<Content> = fc.record({
  nodes: fc.array(fc.record({ id: id('n'), x: fc.nat(9) }), { maxLength: 6 }),
  relations: fc.array(fc.record({ id: id('r'), fromNode: id('n'), toNode: id('n') }), {
    maxLength: 6,
  }),
  pins: fc.array(
    fc.oneof(
      fc.record({ id: id('p'), nodeId: id('n'), relationId: fc.constant(null) }),
      fc.record({ id: id('p'), nodeId: fc.constant(null), relationId: id('r') }),
    ),
    { maxLength: 6 },
  ),
});
const change = fc.tuple(content, fc.array(fc.oneof(id('n'), id('r'), id('p')), { maxLength: 4 }));

test('nothing hangs on what is not there, and a change made twice is made once', () => {
  fc.assert(
    fc.property(fc.array(change, { maxLength: 5 }), (changes) => {
      let map: Content = { nodes: [], relations: [], pins: [] };
      for (const [put, removed] of changes) {
        map = changeCodeMap(map, { ...put, removed });
        const nodes = new Set(map.nodes.map((one) => one.id));
        const relations = new Set(map.relations.map((one) => one.id));
        expect(nodes.size).toBe(map.nodes.length);
        for (const { fromNode, toNode } of map.relations)
          expect([nodes.has(fromNode), nodes.has(toNode), fromNode === toNode]).toEqual([
            true,
            true,
            false,
          ]);
        for (const { nodeId, relationId } of map.pins)
          expect(nodeId === null ? relations.has(relationId!) : nodes.has(nodeId)).toBe(true);
        for (const gone of removed) expect(nodes.has(gone)).toBe(false);
        expect(changeCodeMap(map, { ...put, removed })).toEqual(map);
      }
    }),
  );
});
