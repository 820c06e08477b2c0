import type { Membership, MembershipChange } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { MembershipEntity, rows } from '../database/index.js';

/** Where a person stopped in a study, and what they were asked for there. */
export async function readMembership(
  em: EntityManager,
  studyId: number,
  accountId: number,
): Promise<Membership> {
  const { place, hidesNextSteps } = await em.findOneOrFail(MembershipEntity, {
    studyId,
    accountId,
  });
  const readings = await rows<Membership['readings'][number]>(
    em,
    `select d.id, d.question_id as "questionId", count(*)::int as left
     from second_reading d join second_reading_answer a on a.reading_id = d.id
     where d.study_id = :studyId and d.reader_id = :accountId and a.second_codes is null
     group by d.id order by d.drawn_at, d.id`,
    { studyId, accountId },
  );
  const assigned = await rows<Membership['assigned'][number]>(
    em,
    `select q.id as "questionId", count(r.id)::int as size,
       (count(r.id) filter (where not exists (
         select 1 from settlement t where t.response_id = r.id)))::int as left
     from question q join (
       select distinct question_id, jsonb_array_elements(response_ids)::int as id from assignment
       where study_id = :studyId and coder_id = :accountId) one on one.question_id = q.id
     join response r on r.id = one.id and not r.no_answer
     group by q.id order by q.position`,
    { studyId, accountId },
  );
  return { place: place ?? null, hidesNextSteps, readings, assigned };
}

export const changeMembership = (
  em: EntityManager,
  studyId: number,
  accountId: number,
  { place, hidesNextSteps }: MembershipChange,
) =>
  em.nativeUpdate(
    MembershipEntity,
    { studyId, accountId },
    {
      ...(place !== undefined && { place, openedAt: new Date() }),
      ...(hidesNextSteps !== undefined && { hidesNextSteps }),
    },
  );
