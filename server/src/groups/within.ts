import { uuidSchema } from '@yellow-thread/contract';
import type { FastifyRequest } from 'fastify';
import { problems } from '../problems.js';
import { respondentsOf } from './members.js';

declare module 'fastify' {
  interface FastifyRequest {
    /**
     * Ids of the respondents that this request is restricted to, those of the group that its address names; null for
     * everybody.
     *
     * @throws Problem not_found where the study has no such group, invalid_request
     */
    within: () => Promise<number[] | null>;
  }
}

export async function readWithin(this: FastifyRequest): Promise<number[] | null> {
  // from the address itself: a restriction that a route's schema did not speak of must not be lost
  const group = new URLSearchParams(this.url.split('?')[1]).get('group');
  if (group === null) return null;
  if (!uuidSchema.safeParse(group).success)
    throw problems.invalidRequest({ in: 'querystring', fields: [{ at: '/group' }] });
  const { study } = this.params as { study: string };
  return respondentsOf(this.em, Number(study), group);
}
