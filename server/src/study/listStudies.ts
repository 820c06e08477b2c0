import type { ListedStudy } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { isoTime, rows } from '../database/index.js';
import { readStates } from './studies.js';

/** The studies that a person works on, the one that they opened last first. */
export async function listStudies(em: EntityManager, accountId: number): Promise<ListedStudy[]> {
  const studies = await rows<ListedStudy>(
    em,
    `select s.id, s.name, s.purpose, s.archived_at is not null as "isArchived", m.role,
       ${isoTime('m.opened_at')} as "openedAt",
       (select count(*)::int from respondent r where r.study_id = s.id) as respondents,
       (select coalesce(jsonb_agg(a.name order by a.name), '[]')
         from membership o join account a on a.id = o.account_id
         where o.study_id = s.id and o.account_id <> m.account_id) as team,
       (select coalesce(jsonb_agg(jsonb_build_object(
           'id', q.id, 'label', q.label, 'answered', q.answered, 'settled', coalesce(done.settled, 0))
           order by q.position), '[]')
         from question q left join (
           select r.question_id, count(distinct t.response_id)::int as settled
           from settlement t join response r on r.id = t.response_id
           where not r.no_answer and r.question_id in (select id from question where study_id = s.id)
           group by 1) done on done.question_id = q.id
         where q.study_id = s.id) as questions
     from study s join membership m on m.study_id = s.id
     where m.account_id = :accountId order by m.opened_at desc nulls last, s.id desc`,
    { accountId },
  );
  for (const study of studies) {
    const states = await readStates(em, study.id, null);
    for (const question of study.questions)
      question.settled += states.get(question.id)?.decided ?? 0;
  }
  return studies;
}
