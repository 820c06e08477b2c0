/** More answers than a question can have: a place and an index fit into one exact number. */
const INDICES = 2 ** 20;

/**
 * Indices in the order of their places, the least first; those of the same place as they were. Numbers alone are sorted:
 * several times as fast as by comparing.
 *
 * @param places whole numbers of 33 bits at most
 */
export function orderOf(places: ArrayLike<number>): Int32Array {
  const keys = new Float64Array(places.length);
  for (let i = 0; i < keys.length; i++) keys[i] = places[i]! * INDICES + i;
  keys.sort();
  const order = new Int32Array(keys.length);
  for (let n = 0; n < order.length; n++) {
    const key = keys[n]!;
    order[n] = key - Math.floor(key / INDICES) * INDICES;
  }
  return order;
}
