import type {
  CodeClosing,
  Mention,
  Note,
  SecondReadingAnswer,
  Settlement,
} from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { selectFields } from './changeTables.js';
import { rows } from './query.js';

type Values = Parameters<typeof rows>[2];

/** Ids of the codes that can be given to a question: not archived, and for this question. */
export const codesInUse = async (em: EntityManager, questionId: number): Promise<string[]> => {
  const codes = await rows<{ id: string }>(
    em,
    `select c.id from code c join question q on q.study_id = c.study_id
     where q.id = :questionId and not c.archived and (c.questions is null or c.questions @> to_jsonb(q.id))
     order by c.position, c.id`,
    { questionId },
  );
  return codes.map(({ id }) => id);
};

/**
 * Questions of a study some of whose answers may be decided code by code: every code in use is closed, or something is
 * known of it among the answers that nobody settled. Asked before all that is known is read.
 */
export const questionsInReview = async (em: EntityManager, studyId: number): Promise<number[]> => {
  const found = await rows<{ id: number }>(
    em,
    `select q.id from question q where q.study_id = :studyId
       and exists (select 1 from suggestion s where s.question_id = q.id)
       and not exists (
         select 1 from code c where c.study_id = q.study_id and not c.archived
           and (c.questions is null or c.questions @> to_jsonb(q.id))
           and not exists (
             select 1 from code_closing k where k.question_id = q.id and k.code_id = c.id)
           and not exists (
             select 1 from suggestion s
             where s.question_id = q.id and s.code_id = c.id and s.state <> 'open')
           and not exists (
             select 1 from mention m join response r on r.id = m.response_id
             where m.code_id = c.id and r.question_id = q.id
               and not exists (select 1 from settlement t where t.response_id = r.id)))`,
    { studyId },
  );
  return found.map(({ id }) => id);
};

// Rows as the records that a change holds, in an order that does not depend on how they are stored.

/** @param where a condition on `mention m` and the code `c` that it applies */
export const findMentions = (
  em: EntityManager,
  where: string,
  values: Values,
): Promise<Mention[]> =>
  dated(
    em,
    `select ${selectFields('mention', 'm')}
     from mention m join code c on c.id = m.code_id
     where ${where} order by m.response_id, m.start nulls first, m.created_at, m.id`,
    values,
    'createdAt',
  );

/** @param where a condition on `note n` */
export const findNotes = (em: EntityManager, where: string, values: Values): Promise<Note[]> =>
  dated(
    em,
    `select ${selectFields('note', 'n')}
     from note n where ${where} order by n.created_at, n.id`,
    values,
    'createdAt',
  );

/** @param where a condition on `settlement s` */
export const findSettlements = (
  em: EntityManager,
  where: string,
  values: Values,
): Promise<Settlement[]> =>
  dated(
    em,
    `select ${selectFields('settlement', 's')}
     from settlement s where ${where} order by s.response_id, s.coder_id`,
    values,
    'settledAt',
  );

/** @param where a condition on `code_closing k` */
export const findClosings = (
  em: EntityManager,
  where: string,
  values: Values,
): Promise<CodeClosing[]> =>
  dated(
    em,
    `select ${selectFields('code_closing', 'k')}
     from code_closing k where ${where} order by k.question_id, k.code_id`,
    values,
    'closedAt',
  );

/** @param where a condition on `second_reading_answer a` and the reading `d` that it is in */
export const findReadingAnswers = (
  em: EntityManager,
  where: string,
  values: Values,
): Promise<SecondReadingAnswer[]> =>
  rows(
    em,
    `select ${selectFields('second_reading_answer', 'a')}
     from second_reading_answer a join second_reading d on d.id = a.reading_id
     where ${where} order by md5(a.reading_id::text || a.response_id)`,
    values,
  );

async function dated<R extends Record<Field, string>, Field extends string>(
  em: EntityManager,
  sql: string,
  values: Values,
  field: Field,
): Promise<R[]> {
  const found = await rows<R>(em, sql, values);
  return found.map((record) => ({ ...record, [field]: new Date(record[field]).toISOString() }));
}
