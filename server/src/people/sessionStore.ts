import { randomBytes } from 'node:crypto';
import type { SessionStore } from '@fastify/session';
import type { EntityManager, MikroORM } from '@mikro-orm/postgresql';
import { row, rows, notifyOfAccess, type SqlValues } from '../database/index.js';

type Session = Parameters<SessionStore['set']>[1];

/** A session ends when nothing was asked for so long. */
export const SESSION_DAYS = 14;
/** However busy, it ends after so long. */
const LONGEST_DAYS = 60;

/** Keeps sessions in PostgreSQL, so that any copy of the server knows them and a restart ends none. */
export function createSessionStore(orm: MikroORM): SessionStore {
  const answer = <T>(work: Promise<T>, callback: (error?: unknown, result?: T) => void) =>
    work.then(
      (result) => callback(null, result),
      (error: unknown) => callback(error),
    );
  return {
    get: (id, callback) =>
      void answer(
        rows<{ data: Session }>(
          orm.em.fork(),
          `select data from session where id = :id and expires_at > now()
             and started_at > now() - make_interval(days => :longestDays)`,
          { id, longestDays: LONGEST_DAYS },
        ).then(([found]) => found?.data ?? null),
        callback as (error?: unknown, result?: Session | null) => void,
      ),
    set: (id, session, callback) =>
      void answer(
        rows(
          orm.em.fork(),
          // saved after every request, yet written only when it says something new: what was read of the study is kept
          // until the database changes
          `with saved as (
             select :id::text as id, :accountId::int as account_id, :data::jsonb as data,
               now() + make_interval(days => :sessionDays) as expires_at)
           insert into session (id, account_id, data, expires_at)
           select * from saved where not exists (
             select 1 from session s where s.id = saved.id
               and s.account_id is not distinct from saved.account_id
               and s.data - 'cookie' = saved.data - 'cookie'
               and s.expires_at > saved.expires_at - interval '1 hour')
           on conflict (id) do update set
             account_id = excluded.account_id, data = excluded.data, expires_at = excluded.expires_at
           where session.expires_at > now()`,
          {
            id,
            accountId: session.accountId ?? null,
            data: JSON.stringify(session),
            sessionDays: SESSION_DAYS,
          },
        ),
        (error) => callback(error),
      ),
    destroy: (id, callback) =>
      void answer(endSessions(orm.em.fork(), 'id = :id', { id }), (error) => callback(error)),
  };
}

/**
 * Ends sessions without deleting them: a request that is in progress saves its session when it is done, and
 * would bring back who has signed out. They are removed within the hour.
 */
export async function endSessions(
  em: EntityManager,
  where: string,
  values: SqlValues,
): Promise<void> {
  await rows(
    em,
    `update session set account_id = null, data = '{}', expires_at = now() where ${where}`,
    values,
  );
  await notifyOfAccess(em, null);
}

export const removeExpiredSessions = (em: EntityManager) =>
  rows(
    em,
    'delete from session where expires_at <= now() or started_at <= now() - make_interval(days => :longestDays)',
    { longestDays: LONGEST_DAYS },
  );

/** The secret that signs cookies: made once, kept in the database, the same for every server on it. */
export async function sessionSecret(em: EntityManager): Promise<string> {
  await rows(
    em,
    `insert into setting (key, value) values ('session_secret', :secret) on conflict do nothing`,
    { secret: randomBytes(48).toString('base64url') },
  );
  const { value } = await row<{ value: string }>(
    em,
    `select value from setting where key = 'session_secret'`,
  );
  return value;
}

/** What a person may hear of, as long as the session lasts; null when it has ended. */
export async function studiesOfSession(
  em: EntityManager,
  sessionId: string,
): Promise<Set<number> | null> {
  const found = await rows<{ study: number | null }>(
    em,
    `select m.study_id as study
     from session s join account a on a.id = s.account_id and not a.chooses_password
     left join membership m on m.account_id = a.id
     where s.id = :sessionId and s.expires_at > now()`,
    { sessionId },
  );
  if (found.length === 0) return null;
  return new Set(found.flatMap(({ study }) => (study === null ? [] : [study])));
}
