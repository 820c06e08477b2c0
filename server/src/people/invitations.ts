import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { hash } from '@node-rs/argon2';
import type {
  Invitation,
  InvitationCreate,
  InvitationLink,
  OpenedInvitation,
  Role,
} from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  AccountEntity,
  InvitationEntity,
  MembershipEntity,
  isoTime,
  noteInHistory,
  notifyOfAccess,
  rows,
  type AccountRow,
} from '../database/index.js';
import { problems } from '../wording/problems.js';
import { memberTexts as texts } from '../wording/people.js';
import type { Maker } from './guard.js';
import { requireResettable } from './members.js';
import { endSessions } from './sessionStore.js';

/** How long a link can be used. */
export const LINK_DAYS = 3;

const hashOf = (token: string): string => createHash('sha256').update(token).digest('base64url');

/** Links of a study that can be used, the newest first. */
export const listInvitations = (em: EntityManager, studyId: number): Promise<Invitation[]> =>
  rows(
    em,
    `select i.id, i.name, i.role, a.name as "madeBy", ${isoTime('i.expires_at')} as "expiresAt"
     from invitation i join account a on a.id = i.made_by
     where i.study_id = :studyId and i.expires_at > now() order by i.made_at desc, i.id`,
    { studyId },
  );

/** A link by which somebody joins the study. @throws Problem already_member */
export async function invite(
  em: EntityManager,
  maker: Maker,
  { name, role }: InvitationCreate,
): Promise<InvitationLink> {
  const { studyId } = maker;
  const [member] = await rows(
    em,
    `select 1 from membership m join account a on a.id = m.account_id
     where m.study_id = :studyId and a.name = :name`,
    { studyId, name },
  );
  if (member) throw problems.alreadyMember(name);
  return em.transactional(async (tx) => {
    await noteInHistory(tx, maker, texts.inviting(name, role));
    return makeLink(tx, maker, { name, role, accountId: null });
  });
}

/** A link by which a member chooses a new password. @throws Problem not_found, password_of_their_own */
export async function inviteToReset(
  em: EntityManager,
  actor: AccountRow,
  maker: Maker,
  memberId: number,
): Promise<InvitationLink> {
  const { name } = await requireResettable(em, actor, maker.studyId, memberId);
  return em.transactional(async (tx) => {
    // the link before it is lost, perhaps
    await tx.nativeDelete(InvitationEntity, { studyId: maker.studyId, accountId: memberId });
    return makeLink(tx, maker, { name, role: null, accountId: memberId });
  });
}

async function makeLink(
  tx: EntityManager,
  { studyId, accountId: madeBy }: Maker,
  given: { name: string; role: Role | null; accountId: number | null },
): Promise<InvitationLink> {
  const token = randomBytes(32).toString('base64url');
  const expiresAt = new Date(Date.now() + LINK_DAYS * 86_400_000);
  await tx.insert(InvitationEntity, {
    ...{ id: randomUUID(), studyId, tokenHash: hashOf(token), ...given },
    ...{ madeBy, expiresAt },
  });
  return { token, expiresAt: expiresAt.toISOString() };
}

/** Makes a link unusable that was given out. @throws Problem not_found */
export async function withdrawInvitation(
  em: EntityManager,
  studyId: number,
  id: string,
): Promise<void> {
  const gone = await em.nativeDelete(InvitationEntity, { id, studyId });
  if (gone === 0) throw problems.notFound('link');
}

type FoundInvitation = OpenedInvitation & {
  studyId: number;
  accountId: number | null;
  madeById: number;
};

/** What a link is for. @throws Problem link_not_valid */
export async function openInvitation(em: EntityManager, token: string): Promise<FoundInvitation> {
  const [found] = await rows<FoundInvitation>(
    em,
    `select i.name, i.role, s.name as study, s.id as "studyId", i.account_id as "accountId",
       a.name as "madeBy", a.id as "madeById", ${isoTime('i.expires_at')} as "expiresAt"
     from invitation i join study s on s.id = i.study_id and s.deleted_at is null
     join account a on a.id = i.made_by
     where i.token_hash = :hash and i.expires_at > now()`,
    { hash: hashOf(token) },
  );
  if (!found) throw problems.linkNotValid();
  return found;
}

/** Who comes by a link: somebody who is signed in, or a new person with a name and a password. */
export type Newcomer = { accountId: number } | { name: string; password: string };

/**
 * Uses a link, once: lets somebody into the study, or replaces a password, which ends that person's sessions.
 *
 * @returns the account that is signed in from now on
 * @throws Problem link_not_valid, already_member, account_name_taken
 */
export async function acceptInvitation(
  em: EntityManager,
  token: string,
  newcomer: Newcomer,
): Promise<{ account: AccountRow; studyId: number }> {
  return em.transactional(async (tx) => {
    const invitation = await openInvitation(tx, token);
    // of two who come at once, one finds it gone
    const used = await tx.nativeDelete(InvitationEntity, { tokenHash: hashOf(token) });
    if (used === 0) throw problems.linkNotValid();
    const { studyId } = invitation;
    if (invitation.accountId !== null) {
      if (!('password' in newcomer)) throw problems.linkNotValid();
      const account = await tx.findOneOrFail(AccountEntity, invitation.accountId);
      account.passwordHash = await hash(newcomer.password);
      account.choosesPassword = false;
      await tx.flush();
      await endSessions(tx, 'account_id = :accountId', { accountId: account.id });
      return { account, studyId };
    }
    const account = await accountOf(tx, newcomer);
    await join(tx, invitation, account);
    return { account, studyId };
  });
}

/** @throws Problem account_name_taken */
async function accountOf(tx: EntityManager, newcomer: Newcomer): Promise<AccountRow> {
  if ('accountId' in newcomer) return tx.findOneOrFail(AccountEntity, newcomer.accountId);
  const { name, password } = newcomer;
  const [made] = await rows<{ id: number }>(
    tx,
    `insert into account (name, password_hash) values (:name, :passwordHash)
     on conflict (name) do nothing returning id`,
    { name, passwordHash: await hash(password) },
  );
  if (!made) throw problems.accountNameTaken(name);
  return tx.findOneOrFail(AccountEntity, made.id);
}

/** @throws Problem already_member */
async function join(
  tx: EntityManager,
  { studyId, role, madeById }: FoundInvitation,
  { id: accountId, name }: AccountRow,
): Promise<void> {
  if ((await tx.count(MembershipEntity, { studyId, accountId })) > 0)
    throw problems.alreadyMember(name);
  await tx.insert(MembershipEntity, { studyId, accountId, role: role! });
  await noteInHistory(tx, { studyId, accountId: madeById }, texts.lettingIn(name, role!));
  await notifyOfAccess(tx, studyId);
}

export const removeExpiredInvitations = (em: EntityManager) =>
  em.nativeDelete(InvitationEntity, { expiresAt: { $lt: new Date() } });
