/** A box on a map, by its upper left corner, in pixels. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}
interface Point {
  x: number;
  y: number;
}

const middleOf = ({ x, y, width, height }: Box): Point => ({
  x: x + width / 2,
  y: y + height / 2,
});

/** Where the straight line from the middle of a box to a point leaves it. */
function edgeToward(box: Box, to: Point): Point {
  const middle = middleOf(box);
  const [dx, dy] = [to.x - middle.x, to.y - middle.y];
  const share = Math.min(
    box.width / 2 / Math.max(Math.abs(dx), 1e-9),
    box.height / 2 / Math.max(Math.abs(dy), 1e-9),
    1,
  );
  return { x: middle.x + share * dx, y: middle.y + share * dy };
}

/** The straight line between two boxes, from edge to edge, and its middle. */
export function lineBetween(one: Box, other: Box): { from: Point; to: Point; middle: Point } {
  const from = edgeToward(one, middleOf(other));
  const to = edgeToward(other, middleOf(one));
  return { from, to, middle: { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 } };
}

/** What holds all of some boxes, with room around them. */
export function around(boxes: readonly Box[], room: number): Box {
  if (boxes.length === 0) return { x: 0, y: 0, width: 2 * room, height: 2 * room };
  const left = Math.min(...boxes.map(({ x }) => x)) - room;
  const top = Math.min(...boxes.map(({ y }) => y)) - room;
  const right = Math.max(...boxes.map(({ x, width }) => x + width)) + room;
  const bottom = Math.max(...boxes.map(({ y, height }) => y + height)) + room;
  return { x: left, y: top, width: right - left, height: bottom - top };
}

const overlaps = (one: Box, other: Box): boolean =>
  one.x < other.x + other.width &&
  other.x < one.x + one.width &&
  one.y < other.y + other.height &&
  other.y < one.y + one.height;

const STEP = 20;
/** The free place nearest to the one wanted, further down and to the right, where a box overlaps none of the others. */
export function freePlace(wanted: Box, others: readonly Box[]): Point {
  for (let ring = 0; ; ring++)
    for (let across = 0; across <= ring; across++) {
      const place = {
        ...wanted,
        x: wanted.x + across * STEP,
        y: wanted.y + (ring - across) * STEP,
      };
      if (!others.some((other) => overlaps(place, other))) return { x: place.x, y: place.y };
    }
}
