import type { EntityManager } from '@mikro-orm/postgresql';
import { asRecord, selectFields, type ChangeTables } from './changeTables.js';
import { rows, type SqlValues } from './query.js';

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

/**
 * Finds rows of a table as the records that a change holds, in an order that does not depend on how they are stored.
 *
 * @param from the table with its alias, and what it is joined with
 */
const finder =
  <Table extends keyof ChangeTables>(
    table: Table,
    { alias, from, order }: { alias: string; from: string; order: string },
  ) =>
  async (em: EntityManager, where: string, values: SqlValues): Promise<ChangeTables[Table][]> => {
    const found = await rows<object>(
      em,
      `select ${selectFields(table, alias)} from ${from} where ${where} order by ${order}`,
      values,
    );
    return found.map((one) => asRecord(table, one));
  };

/** By a condition on `mention m` and the code `c` that it applies. */
export const findMentions = finder('mention', {
  alias: 'm',
  from: 'mention m join code c on c.id = m.code_id',
  order: 'm.response_id, m.start nulls first, m.created_at, m.id',
});

/** By a condition on `note n`. */
export const findNotes = finder('note', {
  alias: 'n',
  from: 'note n',
  order: 'n.created_at, n.id',
});

/** By a condition on `settlement s`. */
export const findSettlements = finder('settlement', {
  alias: 's',
  from: 'settlement s',
  order: 's.response_id, s.coder_id',
});

/** By a condition on `assignment g`. */
export const findAssignments = finder('assignment', {
  alias: 'g',
  from: 'assignment g',
  order: 'g.assigned_at desc, g.id',
});

/** By a condition on `code_closing k`. */
export const findClosings = finder('code_closing', {
  alias: 'k',
  from: 'code_closing k',
  order: 'k.question_id, k.code_id',
});

/** By a condition on `second_reading_answer a` and the reading `d` that it is in. */
export const findReadingAnswers = finder('second_reading_answer', {
  alias: 'a',
  from: 'second_reading_answer a join second_reading d on d.id = a.reading_id',
  order: 'md5(a.reading_id::text || a.response_id)',
});
