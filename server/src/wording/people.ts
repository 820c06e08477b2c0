import type { Role } from '@yellow-thread/contract';

/** people/accounts.ts */
export const accountsTexts = {
  demoResearcher: 'Demo researcher',
};

/** people/members.ts and people/invitations.ts, of the history */
export const memberTexts = {
  makingThem: (name: string, role: Role) => `making ${name} ${roleName(role)}`,
  removing: (name: string) => `removing ${name} from the team`,
  inviting: (name: string, role: Role) => `inviting ${name} as ${roleName(role)}`,
  lettingIn: (name: string, role: Role) => `letting ${name} in as ${roleName(role)}`,
};

const roleName = (role: Role): string => `${role === 'owner' ? 'an' : 'a'} ${role}`;
