import type { Member, Role } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  MembershipEntity,
  noteInHistory,
  notifyOfAccess,
  rows,
  type AccountRow,
} from '../database/index.js';
import { problems } from '../wording/problems.js';
import { memberTexts as texts } from '../wording/people.js';
import { OWNER } from './accounts.js';
import type { Maker } from './guard.js';

interface StoredMember {
  id: number;
  name: string;
  role: Role;
  hasPassword: boolean;
  /** Whether every study of theirs is one that the person asking owns. */
  isOursAlone: boolean;
}

/** Who may open a study, by name. @param actorId who asks */
const findMembers = (
  em: EntityManager,
  actorId: number,
  studyId: number,
): Promise<StoredMember[]> =>
  rows(
    em,
    `select a.id, a.name, m.role, a.password_hash is not null as "hasPassword",
       not exists (select 1 from membership o where o.account_id = a.id and not exists (
         select 1 from membership own where own.study_id = o.study_id
           and own.account_id = :actorId and own.role = 'owner')) as "isOursAlone"
     from membership m join account a on a.id = m.account_id
     where m.study_id = :studyId order by a.name`,
    { actorId, studyId },
  );

/** Whether `actor` may let a member choose a new password: the owner of the installation, or who owns all they work in. */
const mayReset = (actor: AccountRow, { id, name, hasPassword, isOursAlone }: StoredMember) =>
  hasPassword && id !== actor.id && name !== OWNER && (actor.name === OWNER || isOursAlone);

/** Who works in a study, by name. */
export async function listMembers(
  em: EntityManager,
  { actor, studyId, role }: { actor: AccountRow; studyId: number; role: Role },
): Promise<Member[]> {
  const members = await findMembers(em, actor.id, studyId);
  return members.map((member) => ({
    id: member.id,
    name: member.name,
    role: member.role,
    mayBeReset: role === 'owner' && mayReset(actor, member),
  }));
}

/** @throws Problem not_found, password_of_their_own */
export async function requireResettable(
  em: EntityManager,
  actor: AccountRow,
  studyId: number,
  memberId: number,
): Promise<{ name: string }> {
  const member = (await findMembers(em, actor.id, studyId)).find(({ id }) => id === memberId);
  if (!member) throw problems.notFound('person');
  if (!mayReset(actor, member)) throw problems.passwordOfTheirOwn(member.name);
  return member;
}

/** Gives a member another role. @throws Problem not_found, last_owner */
export async function changeRole(
  em: EntityManager,
  maker: Maker,
  memberId: number,
  role: Role,
): Promise<void> {
  const { studyId } = maker;
  await em.transactional(async (tx) => {
    const { name, role: before } = await takeMember(tx, studyId, memberId, role);
    if (before === role) return;
    await tx.nativeUpdate(MembershipEntity, { studyId, accountId: memberId }, { role });
    await noteInHistory(tx, maker, texts.makingThem(name, role));
    await notifyOfAccess(tx, studyId);
  });
}

/**
 * Removes a person from a study; what they coded stays. Whoever is no owner removes only themselves, and the owner of the
 * installation is removed by nobody else.
 *
 * @throws Problem not_found, not_your_role, last_owner, not_the_owner
 */
export async function removeMember(
  em: EntityManager,
  { maker, role, memberId }: { maker: Maker; role: Role; memberId: number },
): Promise<void> {
  const { studyId, accountId } = maker;
  if (role !== 'owner' && accountId !== memberId) throw problems.notYourRole(role);
  await em.transactional(async (tx) => {
    const { name } = await takeMember(tx, studyId, memberId, null);
    if (name === OWNER && accountId !== memberId) throw problems.notTheOwner();
    await tx.nativeDelete(MembershipEntity, { studyId, accountId: memberId });
    await noteInHistory(tx, maker, texts.removing(name));
    await notifyOfAccess(tx, studyId);
  });
}

/**
 * A member whose role is about to change, held so that two owners who shut each other out at once do so one after the
 * other.
 *
 * @param becomes the role that they get; null for none
 */
async function takeMember(
  tx: EntityManager,
  studyId: number,
  memberId: number,
  becomes: Role | null,
): Promise<{ name: string; role: Role }> {
  const members = await rows<{ id: number; name: string; role: Role }>(
    tx,
    `select a.id, a.name, m.role from membership m join account a on a.id = m.account_id
     where m.study_id = :studyId order by a.id for update of m`,
    { studyId },
  );
  const member = members.find(({ id }) => id === memberId);
  if (!member) throw problems.notFound('person');
  const owners = members.filter(({ id, role }) => role === 'owner' && id !== memberId);
  if (member.role === 'owner' && becomes !== 'owner' && owners.length === 0)
    throw problems.lastOwner();
  return member;
}
