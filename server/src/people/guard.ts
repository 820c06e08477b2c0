import type { FastifyRequest } from 'fastify';
import {
  AccountEntity,
  MembershipEntity,
  row,
  type AccountRow,
  type ChangeMaker,
} from '../database/index.js';
import { hasAccess, idSchema, type Role } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { problems } from '../wording/problems.js';

declare module 'fastify' {
  interface FastifyRequest {
    /** This request's own view of the database. */
    em: EntityManager;
    account: AccountRow | null;
    /** What whoever asks does in the study that is asked of; null outside a study. */
    role: Role | null;
  }
  interface Session {
    accountId?: number;
    /** What the browser said of itself when it signed in, and where it was. */
    browser?: string;
    address?: string;
  }
}

/** Who is asking. @throws Problem not_signed_in, password_to_choose */
export function requireAccount(request: FastifyRequest): AccountRow {
  if (!request.account) throw problems.notSignedIn();
  if (request.account.choosesPassword) throw problems.passwordToChoose();
  return request.account;
}

export type Maker = ChangeMaker;

export const makerOf = (request: FastifyRequest, studyId: number): Maker => {
  const tab = request.headers['tab'];
  return {
    studyId,
    accountId: requireAccount(request).id,
    ...(typeof tab === 'string' && /^[\w-]{1,40}$/u.test(tab) && { tab }),
  };
};

/** Finds out who is signed in. */
export async function loadAccount(request: FastifyRequest): Promise<void> {
  const { accountId } = request.session;
  request.account = accountId ? await request.em.findOne(AccountEntity, accountId) : null;
}

/**
 * Lets only members of the study pass whose role is for what is asked; to others the study does not exist.
 *
 * @throws Problem not_found, not_your_role
 */
export async function requireStudy(request: FastifyRequest): Promise<void> {
  const account = requireAccount(request);
  const study = idSchema.safeParse((request.params as { study?: string }).study);
  const membership = study.success
    ? await request.em.findOne(
        MembershipEntity,
        { studyId: study.data, accountId: account.id },
        { fields: ['role'] },
      )
    : null;
  if (!membership) throw problems.notFound('study');
  const access = request.routeOptions.config.endpoint?.access ?? 'research';
  if (!hasAccess(membership.role, access)) throw problems.notYourRole(membership.role);
  request.role = membership.role;
}

/** What a request names that a coder may only name of their own work. */
interface Named {
  params: { study: number; response?: number; mention?: string; note?: string };
  query: { ids?: readonly number[] } | undefined;
  body: { responseId?: number | null; respondentId?: number | null } | undefined;
}

/**
 * Lets coders at the answers that are assigned to them alone, and at what they made themselves there. For others nothing
 * is asked.
 *
 * @throws Problem not_found
 */
export async function requireAssigned(request: FastifyRequest): Promise<void> {
  if (request.role !== 'coder') return;
  // what the endpoint declares was parsed, and names nothing else by these words
  const { params, query, body } = request as unknown as Named;
  const { study: studyId, response, mention = null, note = null } = params;
  if (body?.respondentId) throw problems.notFound('respondent');
  const responses = [response, body?.responseId, ...(query?.ids ?? [])].filter(
    (id): id is number => typeof id === 'number',
  );
  const { mine } = await row<{ mine: boolean }>(
    request.em,
    `select not exists (
         select 1 from unnest(:responses::int[]) as one (id)
         where not exists (select 1 from response r where r.id = one.id and ${isAssigned('r.id')}))
       and not exists (select 1 from mention m where m.id = :mention::uuid
         and (m.coder_id <> :coderId or not ${isAssigned('m.response_id')}))
       and not exists (select 1 from note n where n.id = :note::uuid and n.author_id <> :coderId) as mine`,
    { studyId, coderId: requireAccount(request).id, responses, mention, note },
  );
  if (!mine) throw problems.notFound('answer');
}

/** The condition that an answer is assigned to a coder in the study `:studyId`. @param response its id, in SQL @param coder theirs */
export const isAssigned = (response: string, coder = ':coderId'): string =>
  `exists (select 1 from assignment g
    where g.study_id = :studyId and g.coder_id = ${coder} and g.response_ids @> to_jsonb(${response}))`;
