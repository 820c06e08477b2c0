import type { Member, OneTimePassword } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { AccountEntity, MembershipEntity, rows, type AccountRow } from '../database/index.js';
import { problems } from '../problems.js';
import { oneTimePassword, OWNER } from './accounts.js';
import { endSessions } from './sessionStore.js';

/** Whether `actor` may replace a person's password: the owner may, others only one that was never used. */
const mayGivePassword = (actor: AccountRow, target: AccountRow): boolean =>
  target.passwordHash !== null &&
  target.name !== OWNER &&
  (target.choosesPassword || (actor.name === OWNER && actor.id !== target.id));

/** Who may open a study, by name. */
export async function listMembers(
  em: EntityManager,
  actor: AccountRow,
  studyId: number,
): Promise<Member[]> {
  const memberships = await em.find(MembershipEntity, { studyId });
  const ids = memberships.map(({ accountId }) => accountId);
  const accounts = await em.find(AccountEntity, { id: { $in: ids } }, { orderBy: { name: 'asc' } });
  return accounts.map((account) => ({
    ...{ id: account.id, name: account.name, hasEntered: !account.choosesPassword },
    mayBeGivenPassword: mayGivePassword(actor, account),
  }));
}

/**
 * Lets a person into a study, by the name of their account; one that is not there yet is made.
 *
 * @returns the one-time password of a new account
 * @throws Problem already_member
 */
export async function addMember(
  em: EntityManager,
  studyId: number,
  name: string,
): Promise<OneTimePassword> {
  const { password, account } = await oneTimePassword();
  return em.transactional(async (tx) => {
    const made = await rows<{ id: number }>(
      tx,
      `insert into account (name, password_hash, chooses_password) values (?, ?, ?)
       on conflict (name) do nothing returning id`,
      [name, account.passwordHash, account.choosesPassword],
    );
    const entered = await rows(
      tx,
      `insert into membership (study_id, account_id) select ?, id from account where name = ?
       on conflict do nothing returning 1`,
      [studyId, name],
    );
    if (entered.length === 0) throw problems.alreadyMember(name);
    return { password: made.length > 0 ? password : null };
  });
}

/** Another one-time password for a member; who is signed in with the old one no longer is. @throws Problem password_of_their_own */
export async function givePassword(
  em: EntityManager,
  actor: AccountRow,
  studyId: number,
  memberId: number,
): Promise<OneTimePassword> {
  const member = await findMember(em, studyId, memberId);
  if (!mayGivePassword(actor, member)) throw problems.passwordOfTheirOwn(member.name);
  const { password, account } = await oneTimePassword();
  Object.assign(member, account);
  await em.flush();
  await endSessions(em, 'account_id = ?', [member.id]);
  return { password };
}

/** Shuts a person out of a study; what they coded stays. @throws Problem last_member */
export async function removeMember(
  em: EntityManager,
  studyId: number,
  memberId: number,
): Promise<void> {
  await em.transactional(async (tx) => {
    // two who shut each other out at once do so one after the other
    const members = await rows<{ id: number }>(
      tx,
      'select account_id as id from membership where study_id = ? for update',
      [studyId],
    );
    if (!members.some(({ id }) => id === memberId)) throw problems.notFound('person');
    if (members.length === 1) throw problems.lastMember();
    await rows(tx, 'delete from membership where study_id = ? and account_id = ?', [
      studyId,
      memberId,
    ]);
  });
}

async function findMember(em: EntityManager, studyId: number, id: number): Promise<AccountRow> {
  const isMember = (await em.count(MembershipEntity, { studyId, accountId: id })) > 0;
  const account = isMember ? await em.findOne(AccountEntity, id) : null;
  if (!account) throw problems.notFound('person');
  return account;
}
