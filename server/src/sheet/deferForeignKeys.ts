import type { EntityManager } from '@mikro-orm/postgresql';
import { row, rows } from '../database/index.js';

/** What the rows that are being written may refer to. */
export interface DeferredKeys {
  importId: number;
  respondents: number;
  firstRespondent: number;
  questions: readonly number[];
  codes: string[];
  /** The first of the responses' ids; they go on by respondent and question. */
  first: number;
}

/**
 * Foreign keys are checked by PostgreSQL row by row, which takes longer than writing the rows. Where the
 * database role may, that is left out, and all rows are checked at once before the commit.
 */
export async function deferForeignKeys(
  em: EntityManager,
  keys: DeferredKeys,
  write: () => Promise<unknown>,
): Promise<void> {
  const { may } = await row<{ may: boolean }>(
    em,
    `select has_parameter_privilege('session_replication_role', 'SET') as may`,
  );
  if (!may) {
    await write();
    return;
  }
  // held as a key's own check would hold them, so that nobody takes them away meanwhile
  await rows(em, 'select from question where id = any(:questions::int[]) for key share', {
    questions: keys.questions,
  });
  await rows(em, 'select from code where id = any(:codes::uuid[]) for key share', {
    codes: keys.codes,
  });
  await rows(em, 'set local session_replication_role = replica');
  await write();
  await rows(em, 'set local session_replication_role = origin');
  await verifyKeys(em, keys);
}

/** @throws Error when a row that was just written refers to one that is not there */
async function verifyKeys(
  em: EntityManager,
  { importId, respondents, firstRespondent, questions, codes, first }: DeferredKeys,
): Promise<void> {
  const after = first + respondents * questions.length;
  // the planner takes 100,000 rows that it has no statistics of for one: none may be looked up row by row
  await rows(em, 'set local enable_nestloop = off');
  const { missing } = await row<{ missing: number }>(
    em,
    `select (
       (select :respondents::int - count(*) from respondent where import_id = :importId and id >= :firstRespondent and id < :afterRespondents)
       + (select count(*) from response where id >= :first and id < :after
          and not (respondent_id >= :firstRespondent and respondent_id < :afterRespondents and question_id = any(:questions::int[]))))::int
       as missing`,
    {
      respondents,
      importId,
      firstRespondent,
      afterRespondents: firstRespondent + respondents,
      first,
      after,
      questions,
    },
  );
  const { loose } =
    codes.length > 0
      ? await row<{ loose: number }>(
          em,
          `select (
           (select count(*) from mention m left join response r on r.id = m.response_id
            where m.response_id >= :first and m.response_id < :after
              and (r.id is null or m.code_id <> all(:codes::uuid[])))
           + (select count(*) from settlement s left join response r on r.id = s.response_id
              where s.response_id >= :first and s.response_id < :after and r.id is null))::int as loose`,
          { first, after, codes },
        )
      : { loose: 0 };
  await rows(em, 'set local enable_nestloop = on');
  if (missing + loose > 0)
    throw new Error(`${missing + loose} rows of the import refer to rows that are not there.`);
}
