import { randomInt } from 'node:crypto';
import type { SampleCreate } from '@yellow-thread/contract';
import { simpleRandomSample, stratifiedSample } from '@yellow-thread/core/sampling';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row, rows, SampleEntity } from '../database/index.js';
import { problems } from '../wording/problems.js';
import { DRAWN_AT_RANDOM, readLabels } from '../groups/index.js';
import { chooseTelling } from './telling.js';

interface Candidate {
  id: number;
  respondentId: number;
}

/**
 * Draws answers that are in no sample yet. A random one goes on from the random ones before it, so that all of
 * them together are one random sample; most telling ones are drawn from what is not settled.
 *
 * @returns how many were drawn
 */
export async function drawSample(
  em: EntityManager,
  studyId: number,
  questionId: number,
  { kind, size, variableId, seed = randomInt(2 ** 31) }: SampleCreate,
): Promise<number> {
  return em.transactional(async (tx) => {
    // two people who draw at once draw one after the other
    await rows(tx, 'select id from question where id = :questionId for no key update', {
      questionId,
    });
    const drawn =
      kind === 'most_telling'
        ? (await chooseTelling(tx, questionId, size)).map(({ id }) => id)
        : await drawAtRandom(tx, { studyId, questionId, size, variableId, seed });
    if (drawn.length === 0)
      throw kind === 'most_telling' ? problems.nothingTelling() : problems.nothingToDraw();
    const id = await tx.insert(SampleEntity, { questionId, kind, seed, variableId });
    await rows(
      tx,
      `insert into sample_member (sample_id, response_id) select :id, unnest(:drawn::int[])`,
      { id, drawn },
    );
    return drawn.length;
  });
}

async function drawAtRandom(
  em: EntityManager,
  {
    studyId,
    questionId,
    size,
    variableId,
    seed,
  }: { studyId: number; questionId: number; size: number; variableId: number | null; seed: number },
): Promise<number[]> {
  await refuseAfterSuggestions(em, questionId);
  const labelOf = variableId === null ? null : (await readLabels(em, studyId, variableId)).labelOf;
  const candidates = await rows<Candidate>(
    em,
    `select r.id, r.respondent_id as "respondentId" from response r
     where r.question_id = :questionId and not r.no_answer
       and not exists (select 1 from sample_member m join sample s on s.id = m.sample_id
         where m.response_id = r.id and ${DRAWN_AT_RANDOM})
     order by r.id`,
    { questionId },
  );
  const count = Math.min(size, candidates.length);
  const chosen = labelOf
    ? stratifiedSample(
        candidates.map(({ respondentId }) => labelOf(respondentId) ?? ''),
        count,
        seed,
      )
    : simpleRandomSample(candidates.length, count, seed);
  return chosen.map((i) => candidates[i]!.id);
}

/**
 * What was settled with suggestions in view cannot be in a random sample, and the rest without it is no sample of
 * everybody.
 *
 * @throws Problem sample_after_suggestions
 */
async function refuseAfterSuggestions(em: EntityManager, questionId: number): Promise<void> {
  const { assisted } = await row<{ assisted: number }>(
    em,
    `select count(distinct t.response_id)::int as assisted from settlement t
     join response r on r.id = t.response_id where r.question_id = :questionId and t.assisted`,
    { questionId },
  );
  if (assisted > 0) throw problems.sampleAfterSuggestions(assisted);
}
