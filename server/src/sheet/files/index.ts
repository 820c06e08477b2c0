export { openFile, type OpenedFile } from './openFile.js';
export { PART_SIZE, partWriter, sourceOf, type FileSource } from './source.js';
export {
  ENCODINGS,
  readRows,
  SEPARATORS,
  textOf,
  writeRows,
  type Encoding,
  type RowBatch,
} from './text.js';
