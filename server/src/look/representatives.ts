import type { Representatives, Rule } from '@yellow-thread/contract';
import { conditionsIn } from '@yellow-thread/core/groups';
import type { EntityManager } from '@mikro-orm/postgresql';
import { chosenAnswers, findWithheld, readFilter } from '../coding/index.js';
import { respondentsOfRule } from '../groups/index.js';
import type { Threads } from '../jobs/index.js';
import { compareAnswers } from './compareAnswers.js';
import { placesOf, quoteAt, type Looked } from './looked.js';
import { answersOf } from './material.js';

/**
 * The few answers that together stand for most of some others.
 *
 * @param reader whom answers may be withheld from
 */
export async function readRepresentatives(
  em: EntityManager,
  threads: Threads,
  looked: Looked,
  { of, filter, count }: { of?: Rule | undefined; filter: string; count: number },
  reader: number,
): Promise<Representatives> {
  const { material } = looked;
  const picked = of ? await placesBy(em, looked, of, reader) : placesOf(looked);
  const places = await placesIn(em, looked, { picked, filter, reader });
  const { isMeaning, chosen } = await compareAnswers(em, looked, places, {
    name: 'representatives',
    asked: { count },
    run: (compared) => threads.run('representatives', { ...compared, count }),
  });
  return {
    answers: places.length,
    covered: chosen.reduce((sum, { like }) => sum + like.length, 0),
    isMeaning,
    chosen: chosen.map(({ row, like }) => ({
      answer: quoteAt(material, places[row]!),
      like: like.map((one) => material.ids[places[one]!]!),
    })),
  };
}

/** Those of some answers that a filter of the ledger chooses. */
async function placesIn(
  em: EntityManager,
  { studyId, questionId, material: { ids } }: Looked,
  { picked, filter, reader }: { picked: number[]; filter: string; reader: number },
): Promise<number[]> {
  const query = readFilter(filter);
  if (!query) return picked;
  const chosen = new Set(await chosenAnswers(em, studyId, questionId, query));
  const places = picked.filter((place) => chosen.has(ids[place]!));
  return withoutWithheld(em, ids, places, reader);
}

/** Where the answers stand of those whom a rule picks. */
async function placesBy(
  em: EntityManager,
  looked: Looked,
  rule: Rule,
  reader: number,
): Promise<number[]> {
  const { ids } = looked.material;
  const isPicked = answersOf(looked.material, await respondentsOfRule(em, looked.studyId, rule))!;
  const places = placesOf(looked).filter((place) => isPicked[place]);
  if (!conditionsIn(rule).some(({ is }) => is === 'mentions')) return places;
  return withoutWithheld(em, ids, places, reader);
}

/** That an answer is chosen by its codes would say how it was coded. */
async function withoutWithheld(
  em: EntityManager,
  ids: Int32Array,
  places: readonly number[],
  reader: number,
): Promise<number[]> {
  const withheld = await findWithheld(
    em,
    reader,
    places.map((place) => ids[place]!),
  );
  return places.filter((place) => !withheld.has(ids[place]!));
}
