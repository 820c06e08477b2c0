import type { FastifyRequest } from 'fastify';
import {
  AccountEntity,
  MembershipEntity,
  row,
  type AccountRow,
  type ChangeMaker,
} from '../database/index.js';
import { hasAccess, idSchema, uuidSchema, type Role } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
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

/** What a request names that a coder may only name of their own work; other endpoints name nothing else by these words. */
const namedSchema = z.object({
  params: z.object({
    study: idSchema,
    response: idSchema.optional(),
    mention: uuidSchema.nullable().default(null),
    note: uuidSchema.nullable().default(null),
    reading: uuidSchema.optional(),
  }),
  query: z.object({ ids: z.array(idSchema).default([]) }).nullish(),
  body: z.object({ responseId: idSchema.nullish(), respondentId: idSchema.nullish() }).nullish(),
});

/**
 * Lets coders at the answers that are assigned to them alone, and at what they made themselves there. For others nothing
 * is asked.
 *
 * @throws Problem not_found
 */
export async function requireAssigned(request: FastifyRequest): Promise<void> {
  if (request.role !== 'coder') return;
  const { params, query, body } = namedSchema.parse(request);
  const { study: studyId, response, mention, note, reading } = params;
  // whose a second reading is, and of which answers, it says itself
  if (reading) return;
  if (body?.respondentId) throw problems.notFound('respondent');
  const responses = [response, body?.responseId, ...(query?.ids ?? [])].filter(
    (id) => typeof id === 'number',
  );
  const { mine } = await row<{ mine: boolean }>(
    request.em,
    `select not exists (
         select 1 from unnest(:responses::int[]) as one (id) where one.id not in ${assignedTo()})
       and not exists (select 1 from mention m where m.id = :mention::uuid
         and (m.coder_id <> :coderId or m.response_id not in ${assignedTo()}))
       and not exists (select 1 from note n where n.id = :note::uuid and n.author_id <> :coderId) as mine`,
    { studyId, coderId: requireAccount(request).id, responses, mention, note },
  );
  if (!mine) throw problems.notFound('answer');
}

/**
 * The answers that are assigned to a coder in the study `:studyId`, as a set that is made once for all rows it is asked of.
 *
 * @param coder theirs, in SQL
 */
export const assignedTo = (coder = ':coderId'): string =>
  `(select jsonb_array_elements(g.response_ids)::int from assignment g
    where g.study_id = :studyId and g.coder_id = ${coder})`;
