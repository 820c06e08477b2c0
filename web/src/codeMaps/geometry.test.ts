import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { around, freePlace, lineBetween, type Box } from './geometry.js';

const boxes = fc.record({
  x: fc.integer({ min: -2000, max: 2000 }),
  y: fc.integer({ min: -2000, max: 2000 }),
  width: fc.integer({ min: 20, max: 300 }),
  height: fc.integer({ min: 20, max: 120 }),
});
const isWithin = ({ x, y }: { x: number; y: number }, box: Box, room = 1e-6) =>
  x >= box.x - room &&
  x <= box.x + box.width + room &&
  y >= box.y - room &&
  y <= box.y + box.height + room;
const isOnEdge = (point: { x: number; y: number }, box: Box) =>
  isWithin(point, box) &&
  [
    point.x - box.x,
    box.x + box.width - point.x,
    point.y - box.y,
    box.y + box.height - point.y,
  ].some((distance) => Math.abs(distance) < 1e-6);
const meet = (one: Box, other: Box) =>
  one.x < other.x + other.width &&
  other.x < one.x + one.width &&
  one.y < other.y + other.height &&
  other.y < one.y + one.height;

test('a free place lies on no other box, and is the wanted one where that is free', () => {
  fc.assert(
    fc.property(boxes, fc.array(boxes, { maxLength: 30 }), (wanted, others) => {
      const place = { ...wanted, ...freePlace(wanted, others) };
      expect(others.filter((other) => meet(place, other))).toEqual([]);
      if (!others.some((other) => meet(wanted, other))) expect(place).toEqual(wanted);
    }),
  );
});

test('a line between boxes that are apart goes from edge to edge, and what holds them holds its ends', () => {
  fc.assert(
    fc.property(boxes, boxes, (one, other) => {
      fc.pre(!meet(one, other));
      const { from, to, middle } = lineBetween(one, other);
      expect([isOnEdge(from, one), isOnEdge(to, other)]).toEqual([true, true]);
      const all = around([one, other], 10);
      for (const point of [from, to, middle]) expect(isWithin(point, all)).toBe(true);
      // from there to here it is the same line
      const back = lineBetween(other, one);
      expect([back.from, back.to]).toEqual([to, from]);
    }),
  );
});
