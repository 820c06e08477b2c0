/** Blocks of memory begin at a multiple of this. */
export const ALIGNMENT_BYTES = 64;
const PAGE_BYTES = 65_536;

/** The memory of a WebAssembly instance. Views of it that were made before memory is allocated are no longer valid. */
export interface WasmMemory<Kernels> {
  run: Kernels;
  /** Allocates bytes. @returns where they begin */
  allocate: (bytes: number) => number;
  shorts: (place: number, length: number) => Int16Array;
  ints: (place: number, length: number) => Int32Array;
  floats: (place: number, length: number) => Float64Array;
  floats32: (place: number, length: number) => Float32Array;
}

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

/**
 * A module that exports its memory and functions. It is compiled when it is first used.
 *
 * @param binary the module in base64
 * @returns what makes a new instance, with a memory of its own
 */
export function wasmModule<Kernels>(binary: string): () => WasmMemory<Kernels> {
  let compiled: object | undefined;
  return () => {
    compiled ??= new WebAssembly.Module(
      Uint8Array.from(atob(binary), (letter) => letter.charCodeAt(0)),
    );
    const { memory, ...run } = new WebAssembly.Instance<Kernels & { memory: Memory }>(compiled)
      .exports;
    let used = 0;
    return {
      run: run as unknown as Kernels,
      allocate(bytes) {
        const place = used;
        used += Math.ceil(bytes / ALIGNMENT_BYTES) * ALIGNMENT_BYTES;
        const missing = used - memory.buffer.byteLength;
        if (missing > 0) memory.grow(Math.ceil(missing / PAGE_BYTES));
        return place;
      },
      shorts: (place, length) => new Int16Array(memory.buffer, place, length),
      ints: (place, length) => new Int32Array(memory.buffer, place, length),
      floats: (place, length) => new Float64Array(memory.buffer, place, length),
      floats32: (place, length) => new Float32Array(memory.buffer, place, length),
    };
  };
}
