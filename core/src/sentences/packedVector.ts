const LARGEST = 127;
/** Bytes of the scale that stands before the numbers. */
const SCALE_BYTES = 4;

/** A vector as bytes: its scale in 32 bits, little-endian, and a signed byte a number. */
export function packVector(vector: Float32Array): Uint8Array {
  let largest = 0;
  for (const one of vector) largest = Math.max(largest, Math.abs(one));
  const scale = Math.fround(largest / LARGEST);
  const packed = new Uint8Array(SCALE_BYTES + vector.length);
  new DataView(packed.buffer).setFloat32(0, scale, true);
  for (let i = 0; i < vector.length; i++)
    packed[SCALE_BYTES + i] = scale === 0 ? 0 : Math.round(vector[i]! / scale);
  return packed;
}

/** What `packVector` made of a vector, each number within half of its scale. */
export function unpackVector(packed: Uint8Array): Float32Array {
  const { buffer, byteOffset, byteLength } = packed;
  const scale = new DataView(buffer, byteOffset, byteLength).getFloat32(0, true);
  const bytes = new Int8Array(buffer, byteOffset + SCALE_BYTES, byteLength - SCALE_BYTES);
  // a loop: “from” with a function takes fifty times as long
  const vector = new Float32Array(bytes.length);
  for (let i = 0; i < bytes.length; i++) vector[i] = scale * bytes[i]!;
  return vector;
}
