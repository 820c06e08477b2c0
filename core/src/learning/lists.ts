/** Hands out short lists from long ones: a typed array of its own is dear. */
export interface RoomForLists {
  ints(length: number): Int32Array;
  floats(length: number): Float64Array;
}

const LONG = 1 << 15;

export function roomForLists(): RoomForLists {
  let ints = new Int32Array(LONG);
  let floats = new Float64Array(LONG);
  let [intsUsed, floatsUsed] = [0, 0];
  return {
    ints(length) {
      if (length > LONG) return new Int32Array(length);
      if (intsUsed + length > LONG) [ints, intsUsed] = [new Int32Array(LONG), 0];
      return ints.subarray(intsUsed, (intsUsed += length));
    },
    floats(length) {
      if (length > LONG) return new Float64Array(length);
      if (floatsUsed + length > LONG) [floats, floatsUsed] = [new Float64Array(LONG), 0];
      return floats.subarray(floatsUsed, (floatsUsed += length));
    },
  };
}

/** A list with room for so many more, as it was so far or larger. */
export function withRoom<List extends Int32Array | Float64Array>(
  list: List,
  room: number,
  make: (length: number) => List,
): List {
  if (room <= list.length) return list;
  const larger = make(2 * room);
  larger.set(list);
  return larger;
}
export const newInts = (length: number) => new Int32Array(length);
export const newFloats = (length: number) => new Float64Array(length);

export function dot(x: Float64Array, y: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += x[i]! * y[i]!;
  return sum;
}

/** Of a vector. */
export const lengthOf = (x: Float64Array): number => Math.sqrt(dot(x, x));
