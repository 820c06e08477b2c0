import { lanesBinary } from './lanesBinary.js';

/** What stands side by side takes so many, and begins at a multiple of it. */
export const BYTES_OF_LANES = 64;
/** So many vectors go through a matrix side by side, in numbers of 64 bits and in such of 32. */
export const LANES = BYTES_OF_LANES / Float64Array.BYTES_PER_ELEMENT;
export const ROUGH_LANES = BYTES_OF_LANES / Float32Array.BYTES_PER_ELEMENT;
const bytesOfPage = 65_536;

/** Parts of a WebAssembly module's memory, and what works there (`lanes.wat`). */
export interface LaneMemory {
  /** Makes room for so many bytes. What was read from the memory before must be read anew. */
  room(bytes: number): number;
  ints(place: number, length: number): Int32Array;
  floats(place: number, length: number): Float64Array;
  roughFloats(place: number, length: number): Float32Array;
  run: LaneFunctions;
  /** How vectors go side by side in numbers of 64 bits, and of 32. */
  exact: LaneSize;
  rough: LaneSize;
}
export interface LaneSize extends LaneProducts {
  lanes: number;
  bytes: number;
  numbers: (place: number, length: number) => Float64Array | Float32Array;
  /** The same for rows with a number in each of the first columns, an even number of them. */
  dense?: Record<keyof LaneProducts, LaneStep>;
}
export interface LaneProducts {
  times: LaneProduct;
  transposeTimes: LaneProduct;
}
interface LaneFunctions {
  times: LaneProduct;
  transposeTimes: LaneProduct;
  roughTimes: LaneProduct;
  roughTransposeTimes: LaneProduct;
  addOuter: LaneStep;
  reach: LaneStep;
  advance: LaneStep;
  takeBack: LaneStep;
  project: LaneStep;
  turn: LaneStep;
  solveTriangles: LaneStep;
  addScaled: LaneStep;
  denseTimes: LaneStep;
  denseTransposeTimes: LaneStep;
}
/** What the arguments are is said in `lanes.wat`. */
type LaneStep = (...sizesAndPlaces: number[]) => void;
export type LaneProduct = (
  rows: number,
  count: number,
  start: number,
  stop: number,
  offset: number,
  value: number,
  from: number,
  into: number,
) => void;

// Declared for this file alone: TypeScript knows them of browsers only, with all that these have besides.
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

/** A memory of its own. */
export function laneMemory(): LaneMemory {
  compiled ??= new WebAssembly.Module(
    Uint8Array.from(atob(lanesBinary), (letter) => letter.charCodeAt(0)),
  );
  const { memory, ...run } = new WebAssembly.Instance<LaneFunctions & { memory: Memory }>(compiled)
    .exports;
  const { times, transposeTimes, roughTimes, roughTransposeTimes } = run;
  const floats = (place: number, length: number) => new Float64Array(memory.buffer, place, length);
  const roughFloats = (place: number, length: number) =>
    new Float32Array(memory.buffer, place, length);
  let used = 0;
  return {
    room(bytes) {
      const place = used;
      used += Math.ceil(bytes / BYTES_OF_LANES) * BYTES_OF_LANES;
      const missing = used - memory.buffer.byteLength;
      if (missing > 0) memory.grow(Math.ceil(missing / bytesOfPage));
      return place;
    },
    ints: (place, length) => new Int32Array(memory.buffer, place, length),
    floats,
    roughFloats,
    run,
    exact: { lanes: LANES, bytes: 8, numbers: floats, times, transposeTimes },
    rough: {
      lanes: ROUGH_LANES,
      bytes: 4,
      numbers: roughFloats,
      times: roughTimes,
      transposeTimes: roughTransposeTimes,
      dense: { times: run.denseTimes, transposeTimes: run.denseTransposeTimes },
    },
  };
}
