import { kernelsBinary } from './kernelsBinary.js';

/** Bytes of the numbers that are processed side by side; they are aligned to a multiple of this. */
export const VECTOR_BYTES = 64;
/** Vectors that are multiplied by a matrix side by side, in 64-bit and in 32-bit numbers. */
export const F64_LANES = VECTOR_BYTES / Float64Array.BYTES_PER_ELEMENT;
export const F32_LANES = VECTOR_BYTES / Float32Array.BYTES_PER_ELEMENT;
const PAGE_BYTES = 65_536;

/** The memory of a WebAssembly instance, with its kernels (`kernels.wat`). */
export interface SimdMemory {
  /** Allocates bytes. Views of the memory that were made before are no longer valid. */
  allocate(bytes: number): number;
  ints(place: number, length: number): Int32Array;
  floats(place: number, length: number): Float64Array;
  floats32(place: number, length: number): Float32Array;
  run: SimdKernels;
  /** Kernels and sizes for 64-bit and for 32-bit numbers. */
  f64: SimdPrecision;
  f32: SimdPrecision;
}
export interface SimdPrecision extends ProductKernels {
  lanes: number;
  bytes: number;
  numbers: (place: number, length: number) => Float64Array | Float32Array;
  /** Kernels for rows that fill the leading columns, an even number of them. */
  dense?: Record<keyof ProductKernels, SimdKernel>;
}
export interface ProductKernels {
  times: ProductKernel;
  transposeTimes: ProductKernel;
}
interface SimdKernels {
  times: ProductKernel;
  transposeTimes: ProductKernel;
  times32: ProductKernel;
  transposeTimes32: ProductKernel;
  addOuter: SimdKernel;
  reach: SimdKernel;
  advance: SimdKernel;
  subtractBack: SimdKernel;
  project: SimdKernel;
  turnDirection: SimdKernel;
  solveTriangles: SimdKernel;
  addScaled: SimdKernel;
  denseTimes: SimdKernel;
  denseTransposeTimes: SimdKernel;
}
/** `kernels.wat` documents the arguments. */
type SimdKernel = (...sizesAndPlaces: number[]) => void;
export type ProductKernel = (
  rows: number,
  count: number,
  start: number,
  stop: number,
  offset: number,
  value: number,
  from: number,
  into: number,
) => void;

// Declared here: TypeScript has them in its DOM types only.
declare const WebAssembly: {
  Module: new (bytes: Uint8Array) => object;
  Instance: new <Exports>(module: object) => { readonly exports: Exports };
};
declare const atob: (base64: string) => string;
interface Memory {
  readonly buffer: ArrayBuffer;
  grow(pages: number): number;
}

let compiled: object | undefined;

/** A new instance with a memory of its own. */
export function simdMemory(): SimdMemory {
  compiled ??= new WebAssembly.Module(
    Uint8Array.from(atob(kernelsBinary), (letter) => letter.charCodeAt(0)),
  );
  const { memory, ...run } = new WebAssembly.Instance<SimdKernels & { memory: Memory }>(compiled)
    .exports;
  const { times, transposeTimes, times32, transposeTimes32 } = run;
  const floats = (place: number, length: number) => new Float64Array(memory.buffer, place, length);
  const floats32 = (place: number, length: number) =>
    new Float32Array(memory.buffer, place, length);
  let used = 0;
  return {
    allocate(bytes) {
      const place = used;
      used += Math.ceil(bytes / VECTOR_BYTES) * VECTOR_BYTES;
      const missing = used - memory.buffer.byteLength;
      if (missing > 0) memory.grow(Math.ceil(missing / PAGE_BYTES));
      return place;
    },
    ints: (place, length) => new Int32Array(memory.buffer, place, length),
    floats,
    floats32,
    run,
    f64: { lanes: F64_LANES, bytes: 8, numbers: floats, times, transposeTimes },
    f32: {
      lanes: F32_LANES,
      bytes: 4,
      numbers: floats32,
      times: times32,
      transposeTimes: transposeTimes32,
      dense: { times: run.denseTimes, transposeTimes: run.denseTransposeTimes },
    },
  };
}
