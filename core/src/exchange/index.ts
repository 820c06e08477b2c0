export { writeCsv, type CsvValue } from './csv.js';
export { escapeHtml } from './html.js';
