import type { Member, OneTimePassword } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  AccountEntity,
  MembershipEntity,
  row,
  rows,
  notifyOfAccess,
  type AccountRow,
} from '../database/index.js';
import { problems } from '../wording/problems.js';
import { oneTimePassword, OWNER } from './accounts.js';
import { endSessions } from './sessionStore.js';

/**
 * Whether `actor` may replace a person's password: the owner may; others one that was never used, as long as it opens
 * no study that they do not share.
 *
 * @param studies how many studies the person is in
 */
const mayGivePassword = (actor: AccountRow, target: AccountRow, studies: number): boolean =>
  target.passwordHash !== null &&
  target.name !== OWNER &&
  (actor.name === OWNER ? actor.id !== target.id : target.choosesPassword && studies === 1);

/** How many studies some people are in, by id. */
async function countStudies(em: EntityManager, ids: readonly number[]) {
  const counted = await rows<{ id: number; studies: number }>(
    em,
    `select account_id as id, count(*)::int as studies from membership
     where account_id = any(:ids::int[]) group by 1`,
    { ids },
  );
  return new Map(counted.map(({ id, studies }) => [id, studies]));
}

/** Who may open a study, by name. */
export async function listMembers(
  em: EntityManager,
  actor: AccountRow,
  studyId: number,
): Promise<Member[]> {
  const memberships = await em.find(MembershipEntity, { studyId });
  const ids = memberships.map(({ accountId }) => accountId);
  const studies = await countStudies(em, ids);
  const accounts = await em.find(AccountEntity, { id: { $in: ids } }, { orderBy: { name: 'asc' } });
  return accounts.map((account) => ({
    id: account.id,
    name: account.name,
    hasEntered: !account.choosesPassword,
    mayBeGivenPassword: mayGivePassword(actor, account, studies.get(account.id) ?? 0),
  }));
}

/**
 * Lets a person into a study, by the name of their account; one that is not there yet is made.
 *
 * Nobody is added by an account that never signed in: whoever made it knows its one-time password.
 *
 * @returns the one-time password of a new account
 * @throws Problem already_member, not_entered_yet
 */
export async function addMember(
  em: EntityManager,
  studyId: number,
  name: string,
): Promise<OneTimePassword & { member: number }> {
  const { password, account } = await oneTimePassword();
  return em.transactional(async (tx) => {
    const made = await rows(
      tx,
      `insert into account (name, password_hash, chooses_password) values (:name, :passwordHash, :choosesPassword)
       on conflict (name) do nothing returning 1`,
      { name, passwordHash: account.passwordHash, choosesPassword: account.choosesPassword },
    );
    const known = await row<{ id: number; waits: boolean; studies: number; here: boolean }>(
      tx,
      `select a.id, a.chooses_password and a.name <> :owner as waits,
         (select count(*)::int from membership where account_id = a.id) as studies,
         exists (select 1 from membership where account_id = a.id and study_id = :studyId) as here
       from account a where a.name = :name for no key update`,
      { owner: OWNER, studyId, name },
    );
    if (known.here) throw problems.alreadyMember(name);
    if (known.waits && known.studies > 0) throw problems.notEnteredYet(name);
    await tx.insert(MembershipEntity, { studyId, accountId: known.id });
    // an account whose person was removed before they signed in starts over
    if (known.waits && made.length === 0)
      await tx.nativeUpdate(
        AccountEntity,
        { id: known.id },
        { passwordHash: account.passwordHash },
      );
    await notifyOfAccess(tx, studyId);
    return { password: known.waits ? password : null, member: known.id };
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
  const studies = await countStudies(em, [memberId]);
  if (!mayGivePassword(actor, member, studies.get(memberId) ?? 0))
    throw problems.passwordOfTheirOwn(member.name);
  const { password, account } = await oneTimePassword();
  Object.assign(member, account);
  await em.flush();
  await endSessions(em, 'account_id = :accountId', { accountId: member.id });
  return { password };
}

/**
 * Removes a person from a study; what they coded stays. The owner of the installation is removed by nobody else.
 *
 * @throws Problem last_member, not_the_owner
 */
export async function removeMember(
  em: EntityManager,
  actor: AccountRow,
  studyId: number,
  memberId: number,
): Promise<void> {
  await em.transactional(async (tx) => {
    // two who shut each other out at once do so one after the other
    const members = await rows<{ id: number }>(
      tx,
      'select account_id as id from membership where study_id = :studyId for update',
      { studyId },
    );
    if (!members.some(({ id }) => id === memberId)) throw problems.notFound('person');
    if (members.length === 1) throw problems.lastMember();
    const { name } = await tx.findOneOrFail(AccountEntity, memberId);
    if (name === OWNER && actor.id !== memberId) throw problems.notTheOwner();
    await tx.nativeDelete(MembershipEntity, { studyId, accountId: memberId });
    await notifyOfAccess(tx, studyId);
  });
}

async function findMember(em: EntityManager, studyId: number, id: number): Promise<AccountRow> {
  const isMember = (await em.count(MembershipEntity, { studyId, accountId: id })) > 0;
  const account = isMember ? await em.findOne(AccountEntity, id) : null;
  if (!account) throw problems.notFound('person');
  return account;
}
