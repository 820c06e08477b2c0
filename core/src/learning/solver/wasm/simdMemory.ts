import { wasmModule, type WasmMemory } from '../../../wasm/index.js';
import { kernelsBinary } from './kernelsBinary.js';

/** Bytes of the numbers that are processed side by side; they are aligned to a multiple of this. */
export const VECTOR_BYTES = 64;
/** Vectors that are multiplied by a matrix side by side, in 64-bit and in 32-bit numbers. */
export const F64_LANES = VECTOR_BYTES / Float64Array.BYTES_PER_ELEMENT;
export const F32_LANES = VECTOR_BYTES / Float32Array.BYTES_PER_ELEMENT;

/** The memory of a WebAssembly instance, with its kernels (`kernels.wat`). */
export interface SimdMemory extends WasmMemory<SimdKernels> {
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

const instantiate = wasmModule<SimdKernels>(kernelsBinary);

/** A new instance with a memory of its own. */
export function simdMemory(): SimdMemory {
  const memory = instantiate();
  const { floats, floats32, run } = memory;
  return {
    ...memory,
    f64: {
      lanes: F64_LANES,
      bytes: 8,
      numbers: floats,
      times: run.times,
      transposeTimes: run.transposeTimes,
    },
    f32: {
      lanes: F32_LANES,
      bytes: 4,
      numbers: floats32,
      times: run.times32,
      transposeTimes: run.transposeTimes32,
      dense: { times: run.denseTimes, transposeTimes: run.denseTransposeTimes },
    },
  };
}
