export { wasmModule, type WasmMemory } from './wasmMemory.js';
