import type { QuotedAnswer } from '@yellow-thread/contract';
import type { LeftOut } from '@yellow-thread/core/look';
import type { EntityManager } from '@mikro-orm/postgresql';
import { StudyEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { findQuestion } from '../study/index.js';
import { answersOf, readLookMaterial, type LookMaterial } from './material.js';

/** What is looked at of a question. */
export interface Looked {
  studyId: number;
  questionId: number;
  label: string;
  material: LookMaterial;
  leftOut: LeftOut;
  /** By answer, 1 for those that are looked at; null for all. */
  included: Uint8Array | null;
}

/** Reads what is looked at of a question, by some respondents or all. @throws Problem not_found */
export async function readLooked(
  em: EntityManager,
  threads: Threads,
  { study, question: asked }: { study: number; question: number },
  within: readonly number[] | null,
): Promise<Looked> {
  const question = await findQuestion(em, study, asked);
  const { id: questionId, label, wording } = question;
  const material = await readLookMaterial(em, threads, { studyId: study, questionId });
  const { setAside } = await em.findOneOrFail(StudyEntity, study);
  return {
    ...{ studyId: study, questionId, label, material },
    leftOut: { question: wording, setAside: setAside ?? [] },
    included: answersOf(material, within),
  };
}

/** Where the answers that are looked at stand among all. */
export function placesOf({ material, included }: Looked): number[] {
  const places: number[] = [];
  for (let a = 0; a < material.ids.length; a++) if (!included || included[a]) places.push(a);
  return places;
}

export const countOf = ({ material, included }: Looked): number =>
  included ? included.reduce((sum, one) => sum + one, 0) : material.ids.length;

/** The answer at a place among all. */
export const quoteAt = ({ ids, texts }: LookMaterial, place: number): QuotedAnswer => ({
  id: ids[place]!,
  text: texts[place]!,
});
