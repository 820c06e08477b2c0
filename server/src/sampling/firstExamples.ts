import { FEWEST_EXAMPLES } from '@yellow-thread/core/learning';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';
import type { StudyNearest } from '../sentences/index.js';

/** An answer among which the first examples of a code are looked for. */
export interface NearAnswer {
  id: number;
  text: string;
  codeId: string;
}

/** Answers to a question that may be drawn to be coded by hand, as a condition on a response `r`. */
export const FREE = `r.question_id = :questionId and not r.no_answer
  and not exists (select 1 from settlement t where t.response_id = r.id)
  and not exists (select 1 from sample_member m where m.response_id = r.id)`;

/** Answers of each code that are looked at, nearest first: what lies further is like anything else. */
const LOOKED_AT = 100;

/**
 * The answers nearest in meaning to codes that have too few examples for a model: the nearest of each code in turn, so
 * that every one of them finds its first examples. One of the same words as another is not taken.
 *
 * @param nearest what is near to each code in the study
 * @param size how many at the most
 */
export async function chooseFirstExamples(
  em: EntityManager,
  nearest: StudyNearest,
  { studyId, questionId }: { studyId: number; questionId: number },
  size: number,
): Promise<NearAnswer[]> {
  const codes = await rows<{ id: string }>(
    em,
    `select c.id from code c where c.study_id = :studyId and not c.archived
       and (c.questions is null or c.questions @> to_jsonb(:questionId::int))
       and (select count(distinct m.response_id) from mention m join response r on r.id = m.response_id
         where m.code_id = c.id and r.question_id = :questionId and m.origin <> 'bulk') < ${FEWEST_EXAMPLES}
     order by c.id`,
    { studyId, questionId },
  );
  const near = codes.flatMap(({ id }) =>
    (nearest.get(id) ?? [])
      .slice(0, LOOKED_AT)
      .flatMap(({ responseIds }, place) =>
        responseIds.map((responseId) => ({ codeId: id, place, responseId })),
      ),
  );
  const free = await rows<NearAnswer & { place: number }>(
    em,
    `select distinct on (n.place, n.code_id, r.same) r.id, r.text, n.code_id as "codeId", n.place
     from unnest(:ids::int[], :places::int[], :codes::uuid[]) as n(id, place, code_id)
     join response r on r.id = n.id
     where ${FREE} and not exists (
       select 1 from mention m where m.response_id = r.id and m.code_id = n.code_id)
     order by n.place, n.code_id, r.same, r.id`,
    {
      questionId,
      ids: near.map(({ responseId }) => responseId),
      places: near.map(({ place }) => place),
      codes: near.map(({ codeId }) => codeId),
    },
  );
  return inTurns(free).slice(0, size);
}

/** The first of every code, then the second of every code …, each answer once. */
function inTurns(near: readonly NearAnswer[]): NearAnswer[] {
  const taken = new Set<number>();
  const byCode = new Map<string, NearAnswer[]>();
  for (const one of near) {
    const ofCode = byCode.get(one.codeId);
    if (ofCode) ofCode.push(one);
    else byCode.set(one.codeId, [one]);
  }
  const chosen: NearAnswer[] = [];
  for (let turn = 0; [...byCode.values()].some((ofCode) => turn < ofCode.length); turn++)
    for (const ofCode of byCode.values()) {
      const one = ofCode[turn];
      if (!one || taken.has(one.id)) continue;
      taken.add(one.id);
      chosen.push({ id: one.id, text: one.text, codeId: one.codeId });
    }
  return chosen;
}
