import type { EntityManager } from '@mikro-orm/postgresql';
import { isConstraintError, restoreDeleted, rows, ImportEntity } from '../database/index.js';
import type { JobHandler } from '../jobs/index.js';
import { enqueueEncoding } from '../sentences/index.js';
import { problems } from '../wording/problems.js';
import { countAnswers } from '../study/index.js';
import { writeImportedValues } from './importedValues.js';
import { findImport, undoPayload } from './imports.js';

/** Restores an import that was undone, with all the coding that went with it. */
export const restoreImport: JobHandler = (job) => {
  const { importId } = undoPayload.parse(job.payload);
  return Promise.resolve(async (tx: EntityManager) => {
    await rows(tx, 'select id from study where id = :studyId for no key update', {
      studyId: job.studyId,
    });
    const { isInBin, fileName } = await findImport(tx, job.studyId, importId);
    if (!isInBin) throw problems.notInBin(fileName);
    try {
      await restoreDeleted(tx, importId);
    } catch (error) {
      throw isConstraintError(error) ? problems.placeTaken(fileName) : error;
    }
    await writeImportedValues(tx, importId);
    await rows(tx, 'delete from bin_row where import_id = :importId', { importId });
    await countAnswers(tx, job.studyId);
    await tx.nativeUpdate(ImportEntity, { id: importId }, { undoneAt: null, undoneBy: null });
    await enqueueEncoding(tx, { studyId: job.studyId, accountId: job.createdBy });
    return (em) => rows(em, 'analyze respondent, response, mention, settlement').then(() => {});
  });
};
