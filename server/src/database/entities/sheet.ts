import type {
  BackgroundValue,
  FileSettings,
  Finding,
  SheetSettings,
} from '@yellow-thread/contract';
import { defineEntity, p } from '@mikro-orm/core';

/** What is known of an uploaded sheet after it was read through. */
export interface SheetReading {
  file: FileSettings;
  rows: number;
  columns: { head: string; code: string; reason: string }[];
  preview: string[][];
  /** Size of the rows where they were written out as text; null where the file itself is read. */
  rowsSize: number | null;
}

export const SheetEntity = defineEntity({
  name: 'Sheet',
  tableName: 'sheet',
  properties: {
    id: p.integer().primary().autoincrement(),
    studyId: p.integer(),
    uploadedBy: p.integer(),
    uploadedAt: p.datetime().defaultRaw('now()'),
    fileName: p.text(),
    size: p.bigint('number').default(0),
    /** Null until the upload is complete. */
    checksum: p.text().nullable(),
    /** What was found by reading it through. */
    reading: p.json<SheetReading>().nullable(),
    settings: p.json<SheetSettings>().nullable(),
    /** What a check of it found, by its settings. */
    checked: p.json<unknown>().nullable().lazy(),
  },
});

export const SheetPartEntity = defineEntity({
  name: 'SheetPart',
  tableName: 'sheet_part',
  properties: {
    sheetId: p.integer().primary(),
    content: p.text().primary(),
    position: p.integer().primary(),
    bytes: p.blob().$type<Buffer>(),
  },
});

export const ImportEntity = defineEntity({
  name: 'Import',
  tableName: 'import',
  properties: {
    id: p.integer().primary().autoincrement(),
    studyId: p.integer(),
    fileName: p.text(),
    checksum: p.text(),
    roles: p.json<unknown>(),
    findings: p.json<Finding[]>(),
    respondents: p.integer(),
    responses: p.integer(),
    importedBy: p.integer(),
    importedAt: p.datetime().defaultRaw('now()'),
    settings: p.json<unknown>().defaultRaw(`'{}'`),
    size: p.bigint('number').default(0),
    summary: p.json<unknown>().defaultRaw(`'{}'`),
    undoneAt: p.datetime().nullable(),
    undoneBy: p.integer().nullable(),
  },
});

export const ImportBeforeEntity = defineEntity({
  name: 'ImportBefore',
  tableName: 'import_before',
  properties: {
    importId: p.integer().primary(),
    respondentId: p.integer().primary(),
    weight: p.float().columnType('double precision').nullable(),
    background: p.json<Record<string, BackgroundValue | null>>(),
  },
});

export const ImportBeforeResponseEntity = defineEntity({
  name: 'ImportBeforeResponse',
  tableName: 'import_before_response',
  properties: {
    importId: p.integer().primary(),
    responseId: p.integer().primary(),
    text: p.text().nullable(),
    noAnswer: p.boolean().nullable(),
    same: p.bigint('number').nullable(),
  },
});
