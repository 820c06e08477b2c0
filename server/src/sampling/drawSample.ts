import { randomInt } from 'node:crypto';
import type { SampleCreate } from '@yellow-thread/contract';
import { mostTelling, simpleRandomSample, stratifiedSample } from '@yellow-thread/core/sampling';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row, rows } from '../database/index.js';
import { problems } from '../problems.js';
import { readVariable } from '../study/index.js';

/** How far the model is from even chances at each answer, at the code that it is least sure of. */
export const distanceFromEven = (questionId: number) =>
  `select response_id, min(abs(probability - 0.5)) as distance from open_suggestion
   where question_id = ${questionId} group by response_id`;

interface Candidate {
  id: number;
  text: string;
  value: string | number | boolean | null;
  distance: number | null;
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
    await rows(tx, 'select id from question where id = ? for update', [questionId]);
    const variable = variableId === null ? null : await readVariable(tx, studyId, variableId);
    const candidates = await rows<Candidate>(
      tx,
      `select r.id, ${kind === 'most_telling' ? 'r.text' : `'' as text`},
         ${variable ? `p.background->'${variable.valueId}'` : 'null'} as value, t.distance
       from response r join respondent p on p.id = r.respondent_id
       ${
         kind === 'most_telling'
           ? `join (${distanceFromEven(questionId)}) t on t.response_id = r.id`
           : 'cross join (select null::float as distance) t'
       }
       where r.question_id = ? and not r.no_answer
         and not exists (select 1 from sample_member m join sample s on s.id = m.sample_id
           where m.response_id = r.id ${kind === 'most_telling' ? '' : `and s.kind <> 'most_telling'`})
       order by r.id`,
      [questionId],
    );
    if (kind === 'most_telling' && candidates.length === 0) throw problems.nothingTelling();
    const drawn = Math.min(size, candidates.length);
    if (drawn === 0) throw problems.nothingToDraw();
    const chosen = {
      random: () => simpleRandomSample(candidates.length, drawn, seed),
      stratified: () =>
        stratifiedSample(
          candidates.map(({ value }) => variable!.labelOf(value) ?? ''),
          drawn,
          seed,
        ),
      most_telling: () =>
        mostTelling(
          candidates.map(({ text }) => text),
          candidates.map(({ distance }) => distance!),
          drawn,
        ),
    }[kind]();
    const { id } = await row<{ id: number }>(
      tx,
      'insert into sample (question_id, kind, seed, variable_id) values (?, ?, ?, ?) returning id',
      [questionId, kind, seed, variableId],
    );
    await rows(
      tx,
      `insert into sample_member (sample_id, response_id) select ?, unnest(?::int[])`,
      [id, chosen.map((i) => candidates[i]!.id)],
    );
    return drawn;
  });
}
