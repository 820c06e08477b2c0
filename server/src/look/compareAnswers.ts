import type { EntityManager } from '@mikro-orm/postgresql';
import { vectorsOfTexts, vectorsVersion, type SharedVectors } from '../sentences/index.js';
import type { Looked } from './looked.js';
import { resultsOf } from './results.js';

/** Answers as threads compare them. */
export interface ComparedAnswers {
  texts: string[];
  /** Others of the question, beside which a few can be told apart. */
  others: string[];
  vectors: SharedVectors | null;
}

/** Fewer answers than this are compared beside others of their question. */
const FEW = 600;

/** What answers are compared by, as threads take it. */
export async function comparedAnswers(
  em: EntityManager,
  { studyId, material: { texts: all } }: Looked,
  places: readonly number[],
): Promise<ComparedAnswers> {
  const texts = places.map((place) => all[place]!);
  const own = new Set(places);
  const step = Math.max(1, Math.floor(all.length / FEW));
  const others = places.length < FEW ? all.filter((_, a) => a % step === 0 && !own.has(a)) : [];
  return { texts, others, vectors: await vectorsOfTexts(em, studyId, [...texts, ...others]) };
}

/** Changes with all that a comparison of answers depends on besides what was answered. */
export const comparedBy = async (
  em: EntityManager,
  { studyId }: Looked,
  places: readonly number[],
  asked: object,
): Promise<object> => ({
  ...asked,
  places: Int32Array.from(places),
  version: await vectorsVersion(em, studyId),
});

/**
 * What is computed of some answers by their likeness: kept until they or their vectors change.
 *
 * @param places where they stand among all
 */
export async function compareAnswers<Result>(
  em: EntityManager,
  looked: Looked,
  places: readonly number[],
  {
    name,
    asked,
    run,
  }: { name: string; asked: object; run: (compared: ComparedAnswers) => Promise<Result> },
): Promise<Result> {
  const key = await comparedBy(em, looked, places, asked);
  return resultsOf(em).get(name, looked.material, key, async () =>
    run(await comparedAnswers(em, looked, places)),
  );
}
