import { encoderMemory } from './wasm/encoderMemory.js';

/**
 * Makes the function that tells how far vectors reach along some directions.
 *
 * @param directions one after the other, each of `size` numbers, a multiple of eight
 * @returns valid until the next call
 */
export function projection(
  directions: Float64Array,
  size: number,
): (vector: Float32Array) => Float32Array {
  const count = directions.length / size;
  const memory = encoderMemory();
  const from = memory.allocate(4 * size);
  const along = memory.allocate(4 * directions.length);
  const into = memory.allocate(4 * count);
  memory.floats32(along, directions.length).set(directions);
  const input = memory.floats32(from, size);
  const result = memory.floats32(into, count);
  return (vector) => {
    input.set(vector);
    memory.run.scoreTokens(from, along, into, 1, count, 4 * size, 4 * size);
    return result;
  };
}
