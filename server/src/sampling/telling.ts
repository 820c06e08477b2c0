import { leastSure } from '@yellow-thread/core/sampling';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { vectorsOfTexts, type StudyNearest } from '../sentences/index.js';
import { chooseFirstExamples, FREE } from './firstExamples.js';

/** One in this many of a telling batch is an answer that no known code fits. */
const UNLIKE_EVERY = 5;
/** One in this many is near in meaning to a code that has too few examples for a model. */
const FIRST_EXAMPLES_EVERY = 5;

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
  /** The code without a model that it is near to in meaning, if it is there for that. */
  nearestTo: string | null;
}

/**
 * The answers whose coding would teach the models most: near the line of some code and unlike each other; among
 * them some that no code fits, since they may hold what the codebook does not know yet, and some near in meaning to
 * codes that have no model yet. Those in a sample that is not yet coded are left out.
 *
 * @param nearest what is near to each code in the study
 */
export async function chooseTelling(
  em: EntityManager,
  threads: Threads,
  {
    studyId,
    questionId,
    nearest,
    size,
  }: { studyId: number; questionId: number; nearest: StudyNearest; size: number },
): Promise<TellingAnswer[]> {
  const near = await rows<Omit<TellingAnswer, 'nearestTo'> & { distance: number }>(
    em,
    `select r.id, r.text, t.code_id as "codeId", t.distance
     from response r join (${distanceFromThreshold(questionId)}) t on t.response_id = r.id
     where ${FREE} order by r.id`,
    { questionId },
  );
  if (near.length === 0) return [];
  const first = await chooseFirstExamples(
    em,
    nearest,
    { studyId, questionId },
    Math.floor(size / FIRST_EXAMPLES_EVERY),
  );
  const isFirst = new Set(first.map(({ id }) => id));
  const unlike = await rows<Pick<TellingAnswer, 'id' | 'text'>>(
    em,
    `select r.id, r.text from response r
     where ${FREE} and r.id <> all(:taken::int[]) and not exists (select 1 from open_suggestion o where o.response_id = r.id)
     order by hashint8extended(r.id, 1) limit :unlike`,
    { questionId, taken: [...isFirst], unlike: Math.floor(size / UNLIKE_EVERY) },
  );
  const others = near.filter(({ id }) => !isFirst.has(id));
  const wanted = Math.max(1, size - unlike.length - first.length);
  const candidates = leastSure(
    others.map(({ distance }) => distance),
    wanted,
  )
    .sort((x, y) => x - y)
    .map((i) => others[i]!);
  const texts = candidates.map(({ text }) => text);
  const chosen = await threads.run('mostTelling', {
    texts,
    distance: candidates.map(({ distance }) => distance),
    size: wanted,
    vectors: await vectorsOfTexts(em, studyId, texts),
  });
  return [
    ...chosen.map((i) => {
      const { id, text, codeId } = candidates[i]!;
      return { id, text, codeId, nearestTo: null };
    }),
    ...first.map(({ id, text, codeId }) => ({ id, text, codeId: null, nearestTo: codeId })),
    ...unlike.map((one) => ({ ...one, codeId: null, nearestTo: null })),
    // as they stand in the ledger
  ].sort((x, y) => x.id - y.id);
}
