import type { EntityManager } from '@mikro-orm/postgresql';
import { noteInHistory, StudyEntity } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { personalDataTexts as texts } from '../wording/study.js';

/** Masks names and contact details for the readers of a study, or shows them as they are. */
export const changePrivacy = (
  em: EntityManager,
  maker: Maker,
  masksForReaders: boolean,
): Promise<void> =>
  em.transactional(async (tx) => {
    const study = await tx.findOneOrFail(StudyEntity, maker.studyId);
    if (study.masksForReaders === masksForReaders) return;
    study.masksForReaders = masksForReaders;
    await tx.flush();
    await noteInHistory(tx, maker, masksForReaders ? texts.masking : texts.unmasking);
  });
