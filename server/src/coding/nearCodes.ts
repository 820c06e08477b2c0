import type { NearCodes } from '@yellow-thread/contract';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, StudyEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { vectorsOfTexts } from '../sentences/index.js';
import type { FoundResponse } from './responses.js';

/** Answers coded last that are compared: similar answers seldom come alone. */
const MOST_CODES = 1000;

/** What answers like this one were coded with by hand. */
export async function readNearCodes(
  em: EntityManager,
  threads: Threads,
  studyId: number,
  { id, questionId, text }: FoundResponse,
): Promise<NearCodes> {
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const coded = await rows<{ text: string; codeIds: string[] }>(
    em,
    `select r.text, m.code_ids as "codeIds" from (
       select m.response_id, array_agg(distinct m.code_id::text) as code_ids, max(m.created_at) as at
       from mention m join response r on r.id = m.response_id
       where r.question_id = :questionId and m.response_id <> :id and m.origin in ('hand', 'import')
       group by m.response_id order by at desc limit ${MOST_CODES}) m
     join response r on r.id = m.response_id`,
    { questionId, id },
  );
  const asked = blankAsides(text, asides);
  const said = coded.map((one) => ({ ...one, text: blankAsides(one.text, asides) }));
  const vectors = await vectorsOfTexts(em, studyId, [asked, ...said.map((one) => one.text)]);
  return { codes: await threads.run('nearCodes', { text: asked, coded: said, vectors }) };
}
