import { ruleTextSchema, uuidSchema } from '@yellow-thread/contract';
import type { FastifyRequest } from 'fastify';
import { problems } from '../wording/problems.js';
import { respondentsOfRule } from './members.js';
import { findGroup } from './stored.js';

declare module 'fastify' {
  interface FastifyRequest {
    /**
     * Ids of the respondents that this request is restricted to, those of the group or of the rule that its address
     * names, and of both where it names both; null for everybody.
     *
     * @throws Problem not_found where the study has no such group, invalid_request
     */
    within: () => Promise<number[] | null>;
  }
}

export async function readWithin(this: FastifyRequest): Promise<number[] | null> {
  // from the address itself: a restriction that a route's schema did not speak of must not be lost
  const named = new URLSearchParams(this.url.split('?')[1]);
  const group = named.get('group');
  const rule = named.get('rule');
  if (group === null && rule === null) return null;
  const { study } = this.params as { study: string };
  const rules = [];
  if (group !== null) {
    if (!uuidSchema.safeParse(group).success) throw refused('/group');
    rules.push((await findGroup(this.em, Number(study), group)).rule);
  }
  if (rule !== null) {
    const read = ruleTextSchema.safeParse(rule);
    if (!read.success) throw refused('/rule');
    rules.push(read.data);
  }
  return respondentsOfRule(this.em, Number(study), { is: 'all_of', rules });
}

const refused = (at: string) => problems.invalidRequest({ in: 'querystring', fields: [{ at }] });
