import type { EntityManager, MikroORM } from '@mikro-orm/postgresql';
import { emptyBin, compactDataVersions } from './database/index.js';
import { dropLoosePictures } from './writeUps/index.js';
import { dropAbandoned } from './sheet/index.js';
import { forgetAttempts, removeExpiredInvitations, removeExpiredSessions } from './people/index.js';
import { dropEmptied } from './study/index.js';

const EVERY_MS = 3_600_000;

/**
 * Clears away what nobody needs any more, at the start and every hour.
 *
 * @returns ends it
 */
export function keepHouse(orm: MikroORM, onError: (error: unknown) => void): () => void {
  const chores = [
    removeExpiredSessions,
    removeExpiredInvitations,
    forgetAttempts,
    compactDataVersions,
    emptyBin,
    (em: EntityManager) => dropLoosePictures(em),
    dropAbandoned,
    dropEmptied,
  ];
  const clear = async () => {
    for (const chore of chores) await chore(orm.em.fork()).catch(onError);
  };
  void clear();
  const again = setInterval(() => void clear(), EVERY_MS);
  return () => clearInterval(again);
}
