import { randomInt } from 'node:crypto';
import type { SampleCreate } from '@yellow-thread/contract';
import { simpleRandomSample, stratifiedSample } from '@yellow-thread/core/sampling';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row, rows, SampleEntity } from '../database/index.js';
import { problems, type Problem } from '../wording/problems.js';
import { DRAWN_AT_RANDOM, readLabels } from '../groups/index.js';
import type { Threads } from '../jobs/index.js';
import { studyNearest, type StudyNearest } from '../sentences/index.js';
import { chooseFirstExamples } from './firstExamples.js';
import { chooseTelling } from './telling.js';

const NOTHING_NEAR: StudyNearest = new Map();

interface Candidate {
  id: number;
  respondentId: number;
}

/**
 * Draws answers that are in no sample yet. A random one goes on from the random ones before it, so that all of
 * them together are one random sample; most telling ones, and first examples of codes that have too few, are drawn
 * from what is not settled.
 *
 * @returns how many were drawn
 * @throws Problem nothing_to_draw, nothing_telling, nothing_near
 */
export async function drawSample(
  em: EntityManager,
  threads: Threads,
  place: { studyId: number; questionId: number },
  { kind, size, variableId, seed = randomInt(2 ** 31) }: SampleCreate,
): Promise<number> {
  const { questionId } = place;
  // found before anybody waits for it; what is drawn at random has no use for it
  const isAtRandom = kind === 'random' || kind === 'stratified';
  const nearest = isAtRandom ? NOTHING_NEAR : await studyNearest(em, threads, place.studyId);
  return em.transactional(async (tx) => {
    // two people who draw at once draw one after the other
    await rows(tx, 'select id from question where id = :questionId for no key update', {
      questionId,
    });
    const choose = {
      random: () => drawAtRandom(tx, { ...place, size, variableId, seed }),
      stratified: () => drawAtRandom(tx, { ...place, size, variableId, seed }),
      most_telling: async () =>
        (await chooseTelling(tx, threads, { ...place, nearest, size })).map(idOf),
      first_examples: async () => (await chooseFirstExamples(tx, nearest, place, size)).map(idOf),
    };
    const drawn = await choose[kind]();
    if (drawn.length === 0) throw nothingOf(kind);
    const id = await tx.insert(SampleEntity, { questionId, kind, seed, variableId });
    await rows(
      tx,
      `insert into sample_member (sample_id, response_id) select :id, unnest(:drawn::int[])`,
      { id, drawn },
    );
    return drawn.length;
  });
}

const idOf = ({ id }: { id: number }): number => id;

function nothingOf(kind: SampleCreate['kind']): Problem {
  if (kind === 'most_telling') return problems.nothingTelling();
  return kind === 'first_examples' ? problems.nothingNear() : problems.nothingToDraw();
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
