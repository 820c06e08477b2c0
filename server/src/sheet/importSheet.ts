import { sheetSettingsSchema } from '@yellow-thread/contract';
import type { SheetOutcome } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import { rows, SheetEntity } from '../database/index.js';
import type { JobHandler } from '../jobs/index.js';
import { enqueueEncoding } from '../sentences/index.js';
import { problems } from '../wording/problems.js';
import { checkOutcome } from './checkSheet.js';
import type { ImportSource } from './importRecord.js';
import { mergeSheet } from './mergeSheet.js';
import { readySheet } from './sheets.js';
import { writeRespondents } from './writeRespondents.js';

export const importPayload = z.object({ sheetId: z.number(), settings: sheetSettingsSchema });

/** Brings a kept sheet into the study: all of it in one transaction, or nothing. */
export const importSheet: JobHandler = (job, { threads, signal, report }) => {
  const { sheetId, settings } = importPayload.parse(job.payload);
  return Promise.resolve(async (tx: EntityManager) => {
    // two imports into one study take turns, so that their ids and positions cannot meet
    await rows(tx, 'select id from study where id = :studyId for no key update', {
      studyId: job.studyId,
    });
    const { sheet, shape, part } = await readySheet(tx, job.studyId, sheetId);
    const outcome = await checkOutcome(tx, { threads, sheet, settings, signal });
    refuseStops(outcome);
    const source: ImportSource = {
      studyId: job.studyId,
      accountId: job.createdBy,
      checksum: sheet.checksum!,
      size: sheet.size,
      shape,
      settings,
    };
    if (settings.as === 'respondents')
      await writeRespondents(tx, source, outcome, {
        writeSheet: (input, write) =>
          threads.run('writeSheet', input, { signal, part, write, onProgress: report }),
      });
    else await mergeSheet(tx, { threads, source, outcome, part, signal });
    await tx.nativeDelete(SheetEntity, { id: sheetId });
    // statistics are updated at once, not at the next autovacuum
    await enqueueEncoding(tx, { studyId: job.studyId, accountId: job.createdBy });
    return (em) => rows(em, 'analyze respondent, response, mention, settlement').then(() => {});
  });
};

export function refuseStops(outcome: SheetOutcome): void {
  const stops = outcome.findings.filter((finding) => finding.kind === 'stop');
  if (stops.length > 0) throw problems.sheetStops(stops.map((finding) => finding.sentence));
}
