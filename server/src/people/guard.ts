import type { FastifyRequest } from 'fastify';
import {
  AccountEntity,
  MembershipEntity,
  type AccountRow,
  type ChangeMaker,
} from '../database/index.js';
import { idSchema } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { problems } from '../wording/problems.js';

declare module 'fastify' {
  interface FastifyRequest {
    /** This request's own view of the database. */
    em: EntityManager;
    account: AccountRow | null;
  }
  interface Session {
    accountId?: number;
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

/** Lets only members of the study pass; to others it does not exist. */
export async function requireStudy(request: FastifyRequest): Promise<void> {
  const account = requireAccount(request);
  const study = idSchema.safeParse((request.params as { study?: string }).study);
  const member =
    study.success &&
    (await request.em.count(MembershipEntity, { studyId: study.data, accountId: account.id })) > 0;
  if (!member) throw problems.notFound('study');
}
