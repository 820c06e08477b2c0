import type { Role } from '@yellow-thread/contract';
import { defineEntity, p, type InferEntity } from '@mikro-orm/core';

export const AccountEntity = defineEntity({
  name: 'Account',
  tableName: 'account',
  properties: {
    id: p.integer().primary().autoincrement(),
    name: p.text(),
    /** Null for an account that is entered without a password. */
    passwordHash: p.text().nullable(),
    choosesPassword: p.boolean().default(false),
  },
});

export const MembershipEntity = defineEntity({
  name: 'Membership',
  tableName: 'membership',
  properties: {
    studyId: p.integer().primary(),
    accountId: p.integer().primary(),
    role: p.text().$type<Role>(),
    openedAt: p.datetime().nullable(),
    /** Where the person stopped: the address within the study. */
    place: p.text().nullable(),
    hidesNextSteps: p.boolean().default(false),
  },
});

export const InvitationEntity = defineEntity({
  name: 'Invitation',
  tableName: 'invitation',
  properties: {
    id: p.uuid().primary(),
    studyId: p.integer(),
    tokenHash: p.text(),
    /** Whom it is for. */
    name: p.text(),
    /** Null where a password is reset. */
    role: p.text().$type<Role>().nullable(),
    /** Whose password is reset. */
    accountId: p.integer().nullable(),
    madeBy: p.integer(),
    madeAt: p.datetime().defaultRaw('now()'),
    expiresAt: p.datetime(),
  },
});

export const SessionEntity = defineEntity({
  name: 'Session',
  tableName: 'session',
  properties: {
    id: p.text().primary(),
    accountId: p.integer().nullable(),
    data: p.json<unknown>(),
    expiresAt: p.datetime(),
    startedAt: p.datetime().defaultRaw('now()'),
  },
});

export const SignInTryEntity = defineEntity({
  name: 'SignInTry',
  tableName: 'sign_in_try',
  properties: {
    kind: p.text().primary(),
    key: p.text().primary(),
    failures: p.integer(),
    lastAt: p.datetime().defaultRaw('now()'),
  },
});

export const AuditEntity = defineEntity({
  name: 'Audit',
  tableName: 'audit',
  properties: {
    id: p.bigint('number').primary().autoincrement(),
    at: p.datetime().defaultRaw('now()'),
    action: p.text(),
    accountId: p.integer().nullable(),
    studyId: p.integer().nullable(),
    details: p.json<Record<string, unknown>>().defaultRaw(`'{}'`),
  },
});

export const SettingEntity = defineEntity({
  name: 'Setting',
  tableName: 'setting',
  properties: {
    key: p.text().primary(),
    value: p.text(),
  },
});

export type AccountRow = InferEntity<typeof AccountEntity>;
