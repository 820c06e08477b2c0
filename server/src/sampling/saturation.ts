import type { Saturation } from '@yellow-thread/contract';
import { chao1, newCodesOf, SATURATION_UNIT, saturationRuns } from '@yellow-thread/core/codebook';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';

/** How new codes became fewer, in the order in which answers to a question were settled. */
export async function readSaturation(em: EntityManager, questionId: number): Promise<Saturation> {
  // what a person coded shows how the codebook grew; what was accepted in bulk does not
  const settled = await rows<{ given: string }>(
    em,
    `select coalesce((
       select string_agg(m.code_id::text, ' ' order by m.created_at, m.id) from mention m
       where m.response_id = s.response_id and m.origin in ('hand', 'words', 'import')), '') as given
     from (select response_id, min(settled_at) as at from settlement group by response_id) s
     join response r on r.id = s.response_id
     where r.question_id = :questionId and not r.no_answer order by s.at, s.response_id`,
    { questionId },
  );
  const answers = settled.map(({ given }) => (given === '' ? [] : given.split(' ')));
  const byAnswer = newCodesOf(answers);
  const newCodes: number[] = [];
  for (let from = 0; from + SATURATION_UNIT <= byAnswer.length; from += SATURATION_UNIT)
    newCodes.push(byAnswer.slice(from, from + SATURATION_UNIT).reduce((sum, one) => sum + one, 0));
  const last = saturationRuns(newCodes).runs.at(-1);
  const counts = new Map<string, number>();
  for (const codes of answers)
    for (const code of codes) counts.set(code, (counts.get(code) ?? 0) + 1);
  return {
    answers: answers.length,
    newCodes,
    codes: counts.size,
    last: last ? { new: last.new, ratio: last.ratio } : null,
    richness: chao1([...counts.values()]),
  };
}
