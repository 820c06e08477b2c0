import { mostTelling } from '@yellow-thread/core/sampling';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';

/** One in this many of a telling batch is an answer that no known code fits. */
const UNLIKE_EVERY = 5;

/**
 * How far each open answer is from the line of the code whose line it is nearest to, and which code that is. The
 * threshold is where somebody put it, or else that of the run that the suggestion is from.
 */
export const distanceFromThreshold = (questionId: number) =>
  `select distinct on (o.response_id) o.response_id, o.code_id,
     abs(o.probability - coalesce(l.threshold, n.threshold, 0.5)) as distance
   from open_suggestion o
   left join review_threshold l on l.question_id = o.question_id and l.code_id = o.code_id
   left join (
     select t.id as run_id, (c.value->>'codeId')::uuid as code_id, (c.value->>'threshold')::float as threshold
     from training_run t cross join jsonb_array_elements(t.codes) c where t.question_id = ${questionId}
   ) n on n.run_id = o.run_id and n.code_id = o.code_id
   where o.question_id = ${questionId}
   order by o.response_id, distance, o.code_id`;

export interface TellingAnswer {
  id: number;
  text: string;
  /** The code whose line it is near; null for one that no code fits. */
  codeId: string | null;
}

/**
 * The answers whose coding would teach the models most: near the line of some code and unlike each other; among
 * them some that no code fits, since they may hold what the codebook does not know yet. Those in a sample that is
 * not yet coded are left out.
 */
export async function chooseTelling(
  em: EntityManager,
  questionId: number,
  size: number,
): Promise<TellingAnswer[]> {
  const free = `r.question_id = :questionId and not r.no_answer
    and not exists (select 1 from settlement t where t.response_id = r.id)
    and not exists (select 1 from sample_member m where m.response_id = r.id)`;
  const near = await rows<TellingAnswer & { distance: number }>(
    em,
    `select r.id, r.text, t.code_id as "codeId", t.distance
     from response r join (${distanceFromThreshold(questionId)}) t on t.response_id = r.id
     where ${free} order by r.id`,
    { questionId },
  );
  if (near.length === 0) return [];
  const unlike = await rows<TellingAnswer>(
    em,
    `select r.id, r.text, null as "codeId" from response r
     where ${free} and not exists (select 1 from open_suggestion o where o.response_id = r.id)
     order by hashint8extended(r.id, 1) limit :unlike`,
    { questionId, unlike: Math.floor(size / UNLIKE_EVERY) },
  );
  const chosen = mostTelling(
    near.map(({ text }) => text),
    near.map(({ distance }) => distance),
    Math.max(1, size - unlike.length),
  );
  return [
    ...chosen.map((i) => ({ id: near[i]!.id, text: near[i]!.text, codeId: near[i]!.codeId })),
    ...unlike,
  ];
}
