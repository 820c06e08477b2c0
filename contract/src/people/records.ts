import { z } from 'zod';
import { idSchema, nameSchema, studyParams, uuidSchema } from '../ids.js';
import { roleSchema } from './roles.js';

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
    role: roleSchema,
    /** Whether whoever asks may make a link by which this person chooses a new password. */
    mayBeReset: z.boolean(),
  })
  .meta({ id: 'Member' });
export type Member = z.infer<typeof memberSchema>;

/** A link that was given out and not used yet. */
export const invitationSchema = z
  .object({
    id: uuidSchema,
    /** Whom it is for. */
    name: z.string(),
    /** Null where it resets a password. */
    role: roleSchema.nullable(),
    madeBy: z.string(),
    expiresAt: z.iso.datetime(),
  })
  .meta({ id: 'Invitation' });
export type Invitation = z.infer<typeof invitationSchema>;
/** To those who are no owners, links are not shown. */
export const membersSchema = z.object({
  members: z.array(memberSchema),
  invitations: z.array(invitationSchema),
});

export const invitationCreateSchema = z.object({ name: nameSchema, role: roleSchema });
export type InvitationCreate = z.infer<typeof invitationCreateSchema>;
/** The secret part of a link, told once, and until when it can be used. */
export const invitationLinkSchema = z
  .object({ token: z.string(), expiresAt: z.iso.datetime() })
  .meta({ id: 'InvitationLink' });
export type InvitationLink = z.infer<typeof invitationLinkSchema>;
export const memberParams = studyParams.extend({ member: idSchema });
export const memberChangeSchema = z.object({ role: roleSchema });
export const invitationParams = studyParams.extend({ invitation: uuidSchema });

const tokenSchema = z.string().regex(/^[\w-]{43}$/u);
export const invitationTokenSchema = z.object({ token: tokenSchema });
/** What a link is for, to whoever has it. */
export const openedInvitationSchema = z
  .object({
    name: z.string(),
    /** Null where it resets a password. */
    role: roleSchema.nullable(),
    study: z.string(),
    madeBy: z.string(),
    expiresAt: z.iso.datetime(),
  })
  .meta({ id: 'OpenedInvitation' });
export type OpenedInvitation = z.infer<typeof openedInvitationSchema>;
/** Without a name and a password, whoever is signed in joins the study. */
export const invitationAcceptSchema = z.object({
  token: tokenSchema,
  /** What a new account is called; not looked at where a password is reset. */
  name: nameSchema.optional(),
  password: z.string().min(10).max(200).optional(),
});
export type InvitationAccept = z.infer<typeof invitationAcceptSchema>;

/** Where a person is signed in. */
export const openSessionSchema = z
  .object({
    /** Not the secret of its cookie. */
    id: z.string(),
    startedAt: z.iso.datetime(),
    /** To the hour. */
    usedAt: z.iso.datetime(),
    /** What the browser said of itself, and the address it came from; null for sessions older than that is kept. */
    browser: z.string().nullable(),
    address: z.string().nullable(),
    isThis: z.boolean(),
  })
  .meta({ id: 'OpenSession' });
export type OpenSession = z.infer<typeof openSessionSchema>;
export const openSessionsSchema = z.object({ sessions: z.array(openSessionSchema) });
export const openSessionParams = z.object({ session: z.string().regex(/^[0-9a-f]{64}$/u) });

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
