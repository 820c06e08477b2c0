import type { Codebook } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';

/** Mentions of the study with who wrote what they rest on. */
const mentioned = `mention m join code c on c.id = m.code_id and c.study_id = ?
  join response r on r.id = m.response_id`;

/** Themes, codes and bundles in order, each with the people and mentions it has in all questions. */
export async function readCodebook(em: EntityManager, studyId: number): Promise<Codebook> {
  const themes = await rows<Codebook['themes'][number]>(
    em,
    `select t.id, t.study_id as "studyId", t.name, t.ink, t.stitch, t.position,
       coalesce(n.people, 0) as people, coalesce(n.mentions, 0) as mentions
     from theme t left join (
       select c.theme_id, count(*)::int as mentions, count(distinct r.respondent_id)::int as people
       from ${mentioned} group by c.theme_id) n on n.theme_id = t.id
     where t.study_id = ? order by t.position, t.name`,
    [studyId, studyId],
  );
  const codes = await rows<Codebook['codes'][number]>(
    em,
    `select c.id, c.study_id as "studyId", c.theme_id as "themeId", c.name, c.definition, c.include,
       c.exclude, c.position, c.archived, c.questions, coalesce(n.people, 0) as people,
       coalesce(n.mentions, 0) as mentions,
       to_char(n.last at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "lastUsed"
     from code c left join (
       select m.code_id, count(*)::int as mentions, count(distinct r.respondent_id)::int as people,
         max(m.created_at) as last
       from ${mentioned} group by m.code_id) n on n.code_id = c.id
     where c.study_id = ? order by c.position, c.name`,
    [studyId, studyId],
  );
  const bundles = await rows<Codebook['bundles'][number]>(
    em,
    `select b.id, b.study_id as "studyId", b.name, b.position,
       coalesce((select jsonb_agg(bc.code_id order by c.position, c.name) from bundle_code bc
         join code c on c.id = bc.code_id where bc.bundle_id = b.id), '[]') as "codeIds",
       (select count(distinct r.respondent_id)::int from bundle_code bc
         join mention m on m.code_id = bc.code_id join response r on r.id = m.response_id
         where bc.bundle_id = b.id) as people
     from bundle b where b.study_id = ? order by b.position, b.name`,
    [studyId],
  );
  return { themes, codes, bundles };
}
