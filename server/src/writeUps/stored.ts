import {
  writeUpContentSchema,
  countedTableSchema,
  measuredAgreementSchema,
  quoteSchema,
  type BinnedWriteUp,
  type WriteUpContent,
  type WriteUpSave,
  type WriteUpSummary,
} from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import { BIN_DAYS, isoTime, rows, WriteUpEntity } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { dropLoosePictures } from './pictures.js';
import { upgradeFrozen } from './upgradeFrozen.js';

/** What a frozen write-up keeps: figures and quotes as they were. */
export const frozenSchema = z.object({
  counted: z.array(countedTableSchema),
  quotes: z.array(quoteSchema),
  coders: z.number().int(),
  // copies that were frozen before agreement was measured here have none
  agreement: z.array(measuredAgreementSchema).default([]),
});
export type Frozen = z.infer<typeof frozenSchema>;

export interface StoredWriteUp {
  id: string;
  name: string;
  version: number;
  content: WriteUpContent;
  frozen: Frozen | null;
  frozenAt: string | null;
}

export const listWriteUps = (em: EntityManager, studyId: number): Promise<WriteUpSummary[]> =>
  rows(
    em,
    `select w.id, w.name, jsonb_array_length(w.content->'tables') as tables,
       ${isoTime('w.saved_at')} as "savedAt", a.name as "savedBy", ${isoTime('w.frozen_at')} as "frozenAt"
     from write_up w join account a on a.id = w.saved_by
     where w.study_id = :studyId and w.binned_at is null order by w.saved_at desc, w.id`,
    { studyId },
  );

/** @throws Problem not_found */
export async function findWriteUp(
  em: EntityManager,
  studyId: number,
  id: string,
): Promise<StoredWriteUp> {
  const found = await em.findOne(
    WriteUpEntity,
    { studyId, id, binnedAt: null },
    { disableIdentityMap: true },
  );
  if (!found) throw problems.notFound('write-up');
  return {
    id: found.id,
    name: found.name,
    version: found.version,
    frozenAt: found.frozenAt?.toISOString() ?? null,
    content: writeUpContentSchema.parse(found.content),
    frozen: found.frozen ? frozenSchema.parse(upgradeFrozen(found.frozen)) : null,
  };
}

/**
 * Saves a write-up on the version that it was written on.
 *
 * @returns the version that it now is
 * @throws Problem changed_meanwhile, write_up_frozen
 */
export async function saveWriteUp(
  em: EntityManager,
  maker: Maker,
  id: string,
  { name, version, content }: WriteUpSave,
): Promise<number> {
  return em.transactional(async (tx) => {
    const [stored] = await rows<{ version: number; studyId: number; isFrozen: boolean }>(
      tx,
      `select version, study_id as "studyId", frozen is not null as "isFrozen"
       from write_up where id = :id for update`,
      { id },
    );
    if (stored && stored.studyId !== maker.studyId) throw problems.notFound('write-up');
    if (stored?.isFrozen) throw problems.writeUpFrozen(name);
    if ((stored?.version ?? 0) !== version) throw problems.changedMeanwhile();
    const [saved] = await rows<{ version: number }>(
      tx,
      `insert into write_up (id, study_id, name, content, saved_by) values (:id, :studyId, :name, :content, :accountId)
       on conflict (id) do update set name = excluded.name, content = excluded.content,
         version = write_up.version + 1, saved_by = excluded.saved_by, saved_at = now(),
         -- whoever still writes on one that somebody else deleted keeps it
         binned_at = null, binned_by = null
       returning version`,
      {
        id,
        studyId: maker.studyId,
        name,
        content: JSON.stringify(content),
        accountId: maker.accountId,
      },
    );
    return saved!.version;
  });
}

/** Keeps a dated copy that does not change any more. @returns whether it was not there yet */
export async function keepFrozen(
  em: EntityManager,
  { maker, id, of, frozen }: { maker: Maker; id: string; of: StoredWriteUp; frozen: Frozen },
): Promise<boolean> {
  const kept = await rows(
    em,
    `insert into write_up (id, study_id, name, content, frozen, frozen_at, copy_of, saved_by)
     values (:id, :studyId, :name, :content, :frozen, now(), :copyOf, :accountId) on conflict (id) do nothing
     returning id`,
    {
      id,
      studyId: maker.studyId,
      name: of.name,
      content: JSON.stringify(of.content),
      frozen: JSON.stringify(frozen),
      copyOf: of.id,
      accountId: maker.accountId,
    },
  );
  return kept.length > 0;
}

/** Write-ups and frozen copies that were deleted and can be restored, latest first. */
export const listBinned = (em: EntityManager, studyId: number): Promise<BinnedWriteUp[]> =>
  rows(
    em,
    `select w.id, w.name, ${isoTime('w.frozen_at')} as "frozenAt", a.name as by,
       ${isoTime('w.binned_at')} as at,
       ${isoTime(`(w.binned_at + interval '${BIN_DAYS} days')`)} as until
     from write_up w join account a on a.id = w.binned_by
     where w.study_id = :studyId order by w.binned_at desc, w.id`,
    { studyId },
  );

/** Puts a write-up into the bin. */
export async function removeWriteUp(em: EntityManager, maker: Maker, id: string) {
  await findWriteUp(em, maker.studyId, id);
  const binned = { binnedAt: new Date(), binnedBy: maker.accountId };
  await em.nativeUpdate(WriteUpEntity, { studyId: maker.studyId, id }, binned);
  await dropLoosePictures(em, maker.studyId);
}

/** Takes a write-up out of the bin. @throws Problem not_found */
export async function restoreWriteUp(em: EntityManager, studyId: number, id: string) {
  const isBinned = { studyId, id, binnedAt: { $ne: null } };
  const restored = await em.nativeUpdate(WriteUpEntity, isBinned, {
    binnedAt: null,
    binnedBy: null,
  });
  if (restored === 0) throw problems.notFound('write-up');
}
