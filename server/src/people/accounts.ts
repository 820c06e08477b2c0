import { randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import type { EntityManager } from '@mikro-orm/postgresql';
import { AccountEntity, row, type AccountRow } from '../database/index.js';
import { problems } from '../wording/problems.js';
import { endSessions } from './sessionStore.js';
import { accountsTexts } from '../wording/people.js';

export const DEMO_RESEARCHER = accountsTexts.demoResearcher;
export const OWNER = 'owner';

/** A hash of nothing that anybody knows: checked when a name is unknown, so that it takes as long. */
const decoy = hash(randomBytes(16));

/** The account with this name and password. @throws Problem wrong_sign_in */
export async function signIn(
  em: EntityManager,
  name: string,
  password: string,
): Promise<AccountRow> {
  const account = await em.findOne(AccountEntity, { name });
  const right = await verify(account?.passwordHash ?? (await decoy), password);
  if (!account?.passwordHash || !right) throw problems.wrongSignIn();
  return account;
}

/** Whether this is the account's password. */
export const isPasswordOf = ({ passwordHash }: AccountRow, password: string): Promise<boolean> =>
  passwordHash ? verify(passwordHash, password) : Promise.resolve(false);

/** Replaces the password; other sessions of the account end. */
export async function choosePassword(
  em: EntityManager,
  account: AccountRow,
  password: string,
  keepSession: string,
): Promise<void> {
  account.passwordHash = await hash(password);
  account.choosesPassword = false;
  await em.flush();
  await endSessions(em, 'account_id = :accountId and id <> :keepSession', {
    accountId: account.id,
    keepSession,
  });
}

/**
 * Makes the local owner at the first start.
 *
 * @returns the one-time password to be printed, or null when there is an owner already
 */
export async function ensureOwner(em: EntityManager): Promise<string | null> {
  const { found } = await row<{ found: boolean }>(
    em,
    'select exists (select 1 from account where password_hash is not null) as found',
  );
  if (found) return null;
  const made = await oneTimePassword();
  em.create(AccountEntity, { name: OWNER, ...made.account });
  await em.flush();
  return made.password;
}

/** A one-time password: whoever signs in with it must choose another. */
export async function oneTimePassword() {
  const password = randomBytes(9).toString('base64url');
  return { password, account: { passwordHash: await hash(password), choosesPassword: true } };
}

/** The demo researcher, made when missing: has no password and enters by the demo button only. */
export async function ensureDemoResearcher(em: EntityManager): Promise<AccountRow> {
  const found = await em.findOne(AccountEntity, { name: DEMO_RESEARCHER });
  if (found) return found;
  const account = em.create(AccountEntity, {
    name: DEMO_RESEARCHER,
    passwordHash: null,
    choosesPassword: false,
  });
  await em.flush();
  return account;
}
