import type { LedgerAnswer } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';

/** Responses with everything that is shown of them, in the order of the ids given. */
export async function readAnswers(
  em: EntityManager,
  ids: readonly number[],
): Promise<LedgerAnswer[]> {
  if (ids.length === 0) return [];
  const found = await rows<LedgerAnswer>(
    em,
    `select r.id, r.respondent_id as "respondentId", p.external_id as "externalId", p.background,
       r.text, r.no_answer as "noAnswer",
       r.changed_at is not null as changed,
       exists (select 1 from settlement t where t.response_id = r.id) as settled,
       exists (select 1 from sample_member s where s.response_id = r.id) as "inSample",
       coalesce((
         select jsonb_agg(jsonb_build_object(
           'id', m.id, 'responseId', m.response_id, 'codeId', m.code_id, 'coderId', m.coder_id,
           'start', m.start, 'end', m."end", 'origin', m.origin,
           'createdAt', to_char(m.created_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'))
           order by m.start nulls first, m.created_at, m.id)
         from mention m where m.response_id = r.id), '[]') as mentions
     from unnest(?::int[]) with ordinality as wanted (id, place)
     join response r on r.id = wanted.id
     join respondent p on p.id = r.respondent_id
     order by wanted.place`,
    [ids],
  );
  return found;
}
