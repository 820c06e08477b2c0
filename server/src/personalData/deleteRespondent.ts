import type { RespondentDeleted } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { noteInHistory, notifyOfAnything, row, rows } from '../database/index.js';
import { noteInAudit, type Maker } from '../people/index.js';
import { enqueueEncoding } from '../sentences/index.js';
import { countAnswers } from '../study/index.js';
import { problems } from '../wording/problems.js';
import { personalDataTexts as texts } from '../wording/study.js';
import { scrubHistory } from './scrubHistory.js';
import { scrubWriteUps } from './scrubWriteUps.js';
import { BIN_OF_RESPONDENT, findTraces, type Traces } from './traces.js';

/**
 * Deletes a respondent for good: their row, answers and all that hangs on these, what of it could be restored, their
 * records in the history, and their words in write-ups and frozen copies, whose figures stay.
 *
 * @throws Problem not_found, job_under_way while a job reads the answers
 */
export async function deleteRespondent(
  em: EntityManager,
  maker: Maker,
  externalId: string,
): Promise<RespondentDeleted> {
  const { studyId, accountId } = maker;
  return em.transactional(async (tx) => {
    const { running } = await row<{ running: boolean }>(
      tx,
      `select exists (select 1 from job where study_id = :studyId and state in ('waiting', 'running')) as running`,
      { studyId },
    );
    if (running) throw problems.answersInUse();
    const traces = await findTraces(tx, studyId, externalId);
    const changes = await scrubHistory(tx, studyId, traces);
    const writeUps = await scrubWriteUps(tx, studyId, traces);
    if (traces.respondentIds.length + writeUps === 0) throw problems.notFound('respondent');
    await deleteRows(tx, studyId, traces);
    await countAnswers(tx, studyId);
    await noteInHistory(tx, maker, texts.deleting);
    await noteInAudit(tx, { action: 'respondent_deleted', accountId, studyId });
    // everything that is shown of the study may have held them
    await notifyOfAnything(tx, studyId);
    await enqueueEncoding(tx, { studyId, accountId });
    return { answers: traces.responseIds.length, changes, writeUps };
  });
}

async function deleteRows(
  tx: EntityManager,
  studyId: number,
  { respondentIds, responseIds, backgrounds }: Traces,
): Promise<void> {
  const values = { studyId, respondentIds, responseIds };
  const questions = await rows<{ id: number }>(
    tx,
    'select distinct question_id as id from response where id = any(:responseIds::int[])',
    values,
  );
  await rows(tx, `delete from bin_row b where ${BIN_OF_RESPONDENT}`, values);
  // what hangs on them goes by its foreign keys
  await rows(tx, 'delete from respondent where id = any(:respondentIds::int[])', values);
  // categories that were theirs alone; others that nobody has may be those of a scale
  await rows(
    tx,
    `delete from category c using jsonb_array_elements(:backgrounds::jsonb) b
     where c.variable_id in (select id from variable where study_id = :studyId)
       and b->>(c.variable_id::text) = c.value
       and not exists (select 1 from respondent p
         where p.study_id = :studyId and p.background->>(c.variable_id::text) = c.value)`,
    { studyId, backgrounds: JSON.stringify(backgrounds) },
  );
  await rows(tx, 'delete from gathered_answers where question_id = any(:questions::int[])', {
    questions: questions.map(({ id }) => id),
  });
  // vectors of texts, some of which were theirs alone: what is still there is read again
  if (respondentIds.length > 0)
    await rows(tx, 'delete from sentence_vector where study_id = :studyId', values);
}
