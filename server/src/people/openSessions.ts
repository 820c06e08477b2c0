import type { OpenSession } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { isoTime, rows } from '../database/index.js';
import { problems } from '../wording/problems.js';
import { endSessions, SESSION_DAYS } from './sessionStore.js';

/** A session's name, from which the secret of its cookie cannot be told. */
const publicId = `encode(sha256(convert_to(id, 'UTF8')), 'hex')`;

/** Where a person is signed in, the last used first. @param current the session that asks */
export const listSessions = (
  em: EntityManager,
  accountId: number,
  current: string,
): Promise<OpenSession[]> =>
  rows(
    em,
    `select ${publicId} as id, ${isoTime('started_at')} as "startedAt",
       ${isoTime('(expires_at - make_interval(days => :sessionDays))')} as "usedAt",
       data->>'browser' as browser, data->>'address' as address, id = :current as "isThis"
     from session where account_id = :accountId and expires_at > now()
     order by id = :current desc, expires_at desc, started_at desc`,
    { accountId, current, sessionDays: SESSION_DAYS },
  );

/** Ends one of a person's sessions. @throws Problem not_found */
export async function endOpenSession(
  em: EntityManager,
  accountId: number,
  id: string,
): Promise<void> {
  const where = `account_id = :accountId and ${publicId} = :id`;
  const [found] = await rows(em, `select 1 from session where ${where}`, { accountId, id });
  if (!found) throw problems.notFound('session');
  await endSessions(em, where, { accountId, id });
}
