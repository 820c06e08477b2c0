/** Media types of the files that are given out. */
export const FILE_TYPES = {
  csv: 'text/csv; charset=utf-8',
  json: 'application/json; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  html: 'text/html; charset=utf-8',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  qdc: 'application/xml; charset=utf-8',
  zip: 'application/zip',
} as const;

const { csv, xlsx, html, docx, qdc, zip } = FILE_TYPES;
export const CODEBOOK_FILE_TYPES = { csv, xlsx, html, docx, qdc };
export const TABLE_FILE_TYPES = { csv, xlsx, html, docx, zip };
/** A graph (graphml.graphdrawing.org), and a table as text (RFC 4180). */
export const GRAPHML = 'application/graphml+xml';
