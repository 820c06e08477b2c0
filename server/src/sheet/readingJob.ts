import type { EntityManager } from '@mikro-orm/postgresql';
import { fileChoicesSchema } from '@yellow-thread/contract';
import { z } from 'zod';
import { type SheetReading, SheetEntity, SheetPartEntity } from '../database/index.js';
import type { JobHandler } from '../jobs/index.js';
import { findSheet, partsOf, proposeSettings, putPart } from './sheets.js';

export const readPayload = z.object({ sheetId: z.number(), choices: fileChoicesSchema });

/** Reads an uploaded file through and proposes what its columns are. */
export const readSheetJob: JobHandler = async (job, { em, threads, signal, report }) => {
  const { sheetId, choices } = readPayload.parse(job.payload);
  const sheet = await findSheet(em, job.studyId, sheetId);
  // rows that an interrupted reading, or one with other choices, left behind
  await em.nativeDelete(SheetPartEntity, { sheetId, content: 'rows' });
  let position = 0;
  const {
    file,
    rows: count,
    columns,
    preview,
    rowsSize,
    ids,
  } = await threads.run(
    'readSheet',
    { fileName: sheet.fileName, size: sheet.size, choices },
    {
      signal,
      onProgress: report,
      part: partsOf(em, sheetId, 'file'),
      write: (_, bytes) => putPart(em, { sheetId, content: 'rows', position: position++, bytes }),
    },
  );
  return async (tx: EntityManager) => {
    const { settings, reasons } = await proposeSettings(tx, job.studyId, { columns, ids });
    const reading: SheetReading = {
      file,
      rows: count,
      columns: columns.map(({ head, code }, c) => ({ head, code, reason: reasons[c]! })),
      preview,
      rowsSize: position > 0 ? rowsSize : null,
    };
    await tx.nativeUpdate(SheetEntity, { id: sheetId }, { reading, settings, checked: null });
  };
};
