export { writeCsv, type CsvValue } from './csv.js';
