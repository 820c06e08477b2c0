export { withoutTextMark, writeCsv, type CsvValue } from './csv.js';
export { fileNameOf } from './fileNameOf.js';
