/** A list with at least this capacity: the given one, or a larger copy. */
export function withCapacity<List extends Int32Array | Float32Array | Float64Array>(
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
export const newFloats32 = (length: number) => new Float32Array(length);

export function dot(x: Float64Array, y: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += x[i]! * y[i]!;
  return sum;
}

/** Of a vector. */
export const lengthOf = (x: Float64Array): number => Math.sqrt(dot(x, x));

export const areEqual = (x: Int32Array | Float64Array, y: Int32Array | Float64Array): boolean =>
  x === y || (x.length === y.length && x.every((one, i) => one === y[i]));

export function multiply(into: Float64Array, x: Float64Array, y: Float64Array): void {
  for (let i = 0; i < into.length; i++) into[i] = x[i]! * y[i]!;
}

/** x += length · y */
export function addTo(x: Float64Array, length: number, y: Float64Array): void {
  for (let i = 0; i < x.length; i++) x[i]! += length * y[i]!;
}
