import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';
import { problems } from '../wording/problems.js';

export interface FoundResponse {
  id: number;
  text: string;
  noAnswer: boolean;
  questionId: number;
}

/** @throws Problem not_found when the response is not of this study */
export async function findResponse(
  em: EntityManager,
  studyId: number,
  id: number,
): Promise<FoundResponse> {
  const [response] = await rows<FoundResponse>(
    em,
    `select r.id, r.text, r.no_answer as "noAnswer", r.question_id as "questionId"
     from response r join question q on q.id = r.question_id
     where r.id = :id and q.study_id = :studyId`,
    { id, studyId },
  );
  if (!response) throw problems.notFound('answer');
  return response;
}

/** Other answers to the same question that have the same words. */
export const sameAs = (em: EntityManager, { id, questionId }: FoundResponse) =>
  rows<{ id: number; text: string }>(
    em,
    `select r.id, r.text from response r join response one on one.id = :id
     where r.question_id = :questionId and r.same = one.same and r.id <> one.id and not r.no_answer
     order by r.id`,
    { id, questionId },
  );

/** Takes the mark of a corrected text off answers that somebody has now seen as they are. */
export const clearChanged = (em: EntityManager, ids: readonly number[]): Promise<unknown> =>
  rows(
    em,
    'update response set changed_at = null where id = any(:ids::int[]) and changed_at is not null',
    { ids },
  );
