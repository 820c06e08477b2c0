import { z } from 'zod';

/**
 * What a person does in a study. `owner`: everything, deleting it and inviting people included. `researcher`: all work.
 * `coder`: codes the answers that are assigned to them, and reads them a second time. `reader`: reads report and
 * write-ups.
 */
export const roleSchema = z.enum(['owner', 'researcher', 'coder', 'reader']);
export type Role = z.infer<typeof roleSchema>;
export const ROLES = roleSchema.options;

/** Who may ask for an operation in a study. */
export const ROLES_WITH = {
  ownership: ['owner'],
  research: ['owner', 'researcher'],
  coding: ['owner', 'researcher', 'coder'],
  reading: ['owner', 'researcher', 'reader'],
  membership: ['owner', 'researcher', 'coder', 'reader'],
} as const satisfies Record<string, readonly Role[]>;
export type Access = keyof typeof ROLES_WITH;

export const hasAccess = (role: Role, access: Access): boolean =>
  (ROLES_WITH[access] as readonly Role[]).includes(role);
