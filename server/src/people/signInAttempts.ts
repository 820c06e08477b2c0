import { createHash } from 'node:crypto';
import { isIPv6 } from 'node:net';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row, rows } from '../database/index.js';
import { problems } from '../wording/problems.js';

/** Wrong tries that are free; each one beyond doubles the wait, from two seconds on. */
const FREE_ATTEMPTS = { account: 5, both: 5, address: 20 };
const LONGEST_WAIT_S = 900;
/** Tries are forgotten after so long without one. */
const FORGOTTEN_AFTER = '1 hour';
const KNOWN_FOR = '30 days';

export interface Attempt {
  /** As typed. */
  name: string;
  address: string;
}

const digest = (...parts: string[]) =>
  createHash('sha256').update(parts.join('\0')).digest('base64url');

/** Whoever has one address of IPv6 has all that begin alike. */
const networkOf = (address: string) =>
  isIPv6(address) && !address.includes('.')
    ? expand(address).slice(0, 4).join(':')
    : address.replace(/^::ffff:/u, '');

function expand(address: string): string[] {
  const [head = '', tail = ''] = address.split('::');
  const [before, after] = [head, tail].map((part) => part.split(':').filter((one) => one !== ''));
  const missing = 8 - before!.length - after!.length;
  return [...before!, ...Array<string>(Math.max(0, missing)).fill('0'), ...after!];
}

/**
 * Counts a try at an account as a wrong one until it is told to be right, so that many at once count one by one.
 * Attempts from where an account signed in before are counted separately: guessing elsewhere locks nobody out.
 *
 * @returns what tells that the try was right
 * @throws Problem too_many_tries, with how long to wait
 */
export async function beginAttempt(
  em: EntityManager,
  { name, address }: Attempt,
): Promise<() => Promise<void>> {
  const network = networkOf(address);
  const [account, both] = [digest(name), digest(name, network)];
  await count(em, 'address', network);
  const known = await rows(
    em,
    `select 1 from sign_in_try where kind = 'known' and key = :both
     and last_at > now() - interval '${KNOWN_FOR}'`,
    { both },
  );
  const [kind, key] =
    known.length > 0 ? (['both', both] as const) : (['account', account] as const);
  await count(em, kind, key);
  return async () => {
    await rows(
      em,
      `with gone as (delete from sign_in_try where kind = :kind and key = :key),
         less as (update sign_in_try set failures = greatest(failures - 1, 0)
           where kind = 'address' and key = :network)
       insert into sign_in_try (kind, key, failures) values ('known', :both, 0)
       on conflict (kind, key) do update set last_at = now()`,
      { kind, key, network, both },
    );
  };
}

async function count(
  em: EntityManager,
  kind: keyof typeof FREE_ATTEMPTS,
  key: string,
): Promise<void> {
  const wait = `make_interval(secs => case when t.failures < ${FREE_ATTEMPTS[kind]} then 0
    else least(2 ^ (t.failures - ${FREE_ATTEMPTS[kind]} + 1), ${LONGEST_WAIT_S}) end)`;
  const counted = await rows(
    em,
    `insert into sign_in_try as t (kind, key, failures) values (:kind, :key, 1)
     on conflict (kind, key) do update set last_at = now(),
       failures = case when t.last_at < now() - interval '${FORGOTTEN_AFTER}' then 1
         else t.failures + 1 end
       where t.last_at + ${wait} <= now()
     returning 1`,
    { kind, key },
  );
  if (counted.length > 0) return;
  const { seconds } = await row<{ seconds: number }>(
    em,
    `select greatest(1, ceil(extract(epoch from t.last_at + ${wait} - now())))::int as seconds
     from sign_in_try t where kind = :kind and key = :key`,
    { kind, key },
  );
  throw problems.waitToTry(seconds);
}

/** Deletes what no longer counts. */
export const forgetAttempts = (em: EntityManager): Promise<unknown> =>
  rows(
    em,
    `delete from sign_in_try where last_at < now() -
       case kind when 'known' then interval '${KNOWN_FOR}' else interval '${FORGOTTEN_AFTER}' end`,
  );
