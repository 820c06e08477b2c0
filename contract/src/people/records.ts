import { z } from 'zod';
import { idSchema, nameSchema, studyParams } from '../ids.js';

export const signInSchema = z.object({
  name: nameSchema,
  password: z.string().min(1).max(200),
});
export type SignIn = z.infer<typeof signInSchema>;

export const choosePasswordSchema = z.object({
  password: z.string().min(10).max(200),
  /** The present one; not needed while a one-time password is replaced. */
  old: z.string().min(1).max(200).optional(),
});
export type ChoosePassword = z.infer<typeof choosePasswordSchema>;

export const accountSchema = z.object({
  id: idSchema,
  name: z.string(),
  /** True until the one-time password has been replaced by one of the person's own. */
  choosesPassword: z.boolean(),
  /** False for the demo researcher, who enters without one. */
  hasPassword: z.boolean(),
});
export type Account = z.infer<typeof accountSchema>;

/** Who is signed in, and what a request that changes something must carry. */
export const sessionSchema = z
  .object({
    account: accountSchema.nullable(),
    /** Null before signing in: a session begins with that. */
    csrfToken: z.string().nullable(),
    /** True where the demo study may be entered without a password. */
    demoOffered: z.boolean(),
  })
  .meta({ id: 'Session' });
export type Session = z.infer<typeof sessionSchema>;

/** A person who may open the study. */
export const memberSchema = z
  .object({
    id: idSchema,
    name: z.string(),
    /** False while the one-time password has not been replaced yet. */
    hasEntered: z.boolean(),
    /** Whether whoever asks may give this person another one-time password. */
    mayBeGivenPassword: z.boolean(),
  })
  .meta({ id: 'Member' });
export type Member = z.infer<typeof memberSchema>;
export const membersSchema = z.object({ members: z.array(memberSchema) });

export const memberCreateSchema = z.object({ name: nameSchema });
export type MemberCreate = z.infer<typeof memberCreateSchema>;
/** The one-time password of a new person, shown once; null for a person who has an account here already. */
export const oneTimePasswordSchema = z.object({ password: z.string().nullable() });
export type OneTimePassword = z.infer<typeof oneTimePasswordSchema>;
export const memberParams = studyParams.extend({ member: idSchema });

/** What somebody did, as far as access and files go: never what was written. */
export const auditEntrySchema = z
  .object({
    id: idSchema,
    at: z.iso.datetime(),
    action: z.string(),
    /** Null for somebody who is not known, or no longer here. */
    accountId: idSchema.nullable(),
    account: z.string().nullable(),
    studyId: idSchema.nullable(),
    /** Ids, kinds and addresses. */
    details: z.record(z.string(), z.union([z.string(), z.number()])),
  })
  .meta({ id: 'AuditEntry' });
export type AuditEntry = z.infer<typeof auditEntrySchema>;
export const auditSchema = z.object({ entries: z.array(auditEntrySchema) });
export const auditQuery = z.object({
  /** Entries before this one, latest first. */
  before: z.coerce.number().int().min(1).optional(),
  most: z.coerce.number().int().min(1).max(1000).default(200),
});
