export { openFile, type OpenedFile } from './openFile.js';
export { PART_SIZE, partWriter, sourceOf, type FileSource } from './source.js';
export { ENCODINGS, type Encoding } from './encodings.js';
export { readRows, SEPARATORS, textOf, writeRows, type RowBatch } from './text.js';
