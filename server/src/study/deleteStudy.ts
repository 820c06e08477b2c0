import { setTimeout as pause } from 'node:timers/promises';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  behindTheirParents,
  readForeignKeys,
  row,
  rows,
  StudyEntity,
  notifyOfAccess,
  type ForeignKey,
  MembershipEntity,
} from '../database/index.js';
import { enqueueJob, type JobHandler } from '../jobs/index.js';
import { noteInAudit, type Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';

const OTHER_JOBS_MS = 300;

/**
 * Takes a study away from everybody at once; a job deletes what is in it.
 *
 * @param name as it was typed, so that no study goes by mistake
 * @throws Problem other_study_name
 */
export async function deleteStudy(
  em: EntityManager,
  { studyId, accountId }: Maker,
  name: string,
): Promise<void> {
  await em.transactional(async (tx) => {
    const study = await tx.findOneOrFail(StudyEntity, studyId);
    if (name.trim() !== study.name.trim()) throw problems.otherStudyName(study.name);
    study.deletedAt = new Date();
    await tx.flush();
    // what runs ends without having written anything
    await rows(
      tx,
      `update job set cancel_asked = true,
         state = case when state = 'waiting' then 'cancelled' else state end where study_id = :studyId`,
      { studyId },
    );
    await tx.nativeDelete(MembershipEntity, { studyId });
    await enqueueJob(tx, {
      kind: 'delete_study',
      studyId,
      questionId: null,
      accountId,
      payload: {},
    });
    await noteInAudit(tx, { action: 'study_deleted', accountId, studyId });
    await notifyOfAccess(tx, studyId);
  });
}

/** Deletes all that is in a study, and then the study, and with it this job. */
export const deleteStudyJob: JobHandler = async ({ id, studyId }, { em, signal, report }) => {
  const others = () =>
    row<{ running: number }>(
      em,
      `select count(*)::int as running from job where study_id = :studyId and id <> :id and state = 'running'`,
      { studyId, id },
    );
  while (!signal.aborted && (await others()).running > 0) await pause(OTHER_JOBS_MS);
  const keys = await readForeignKeys(em);
  // children first and all at once: by the foreign keys they would go one by one
  const tables = behindTheirParents(['study'], keys).filter(
    (table) => table !== 'study' && table !== 'job',
  );
  for (const [done, table] of tables.toReversed().entries()) {
    signal.throwIfAborted();
    report({ done, of: tables.length });
    await rows(em, `delete from ${table} t where ${isOfStudy(table, keys)}`, { studyId });
  }
  // the job's own row is needed until it has ended
  return () => Promise.resolve(async (after) => void (await dropEmptied(after)));
};

/** The condition that a row `t` belongs to the study whose id is `:studyId`. */
function isOfStudy(table: string, keys: readonly ForeignKey[]): string {
  const own = keys.filter(({ child }) => child === table);
  const cascading = own.filter(({ onDelete }) => onDelete === 'cascade');
  const key = cascading.find(({ parent }) => parent === 'study') ?? cascading[0] ?? own[0]!;
  return key.parent === 'study'
    ? `t.${key.column} = :studyId`
    : `t.${key.column} in (select t.${key.target} from ${key.parent} t where ${isOfStudy(key.parent, keys)})`;
}

/** Deletes studies of which the job has deleted what was in them; also those that were left when it was interrupted. */
export const dropEmptied = (em: EntityManager): Promise<unknown> =>
  rows(
    em,
    `delete from study s where deleted_at is not null and not exists (
       select 1 from job where study_id = s.id and state in ('waiting', 'running'))`,
  );
