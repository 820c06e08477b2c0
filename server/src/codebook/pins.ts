import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, PinEntity } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { findCode } from './records.js';

/** Which codes a person has under the keys 1 to 9. */
export async function readPins(em: EntityManager, { studyId, accountId }: Maker) {
  const pins = await rows<{ key: number; codeId: string }>(
    em,
    `select p.key, p.code_id as "codeId" from pin p join code c on c.id = p.code_id and not c.archived
     where p.study_id = :studyId and p.account_id = :accountId order by p.key`,
    { studyId, accountId },
  );
  return { pins };
}

/** Puts a code under a key, from which it takes the one that was there; null empties the key. */
export async function setPin(em: EntityManager, maker: Maker, key: number, codeId: string | null) {
  const { studyId, accountId } = maker;
  if (codeId) await findCode(em, studyId, codeId);
  await em.transactional(async (tx) => {
    const taken = codeId ? { $or: [{ key }, { codeId }] } : { key };
    await tx.nativeDelete(PinEntity, { studyId, accountId, ...taken });
    if (codeId) await tx.insert(PinEntity, { studyId, accountId, key, codeId });
  });
  return readPins(em, maker);
}
