import { ledgerQuery, type LedgerPage, type LedgerShow } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { z } from 'zod';
import { row, rows } from '../database/index.js';
import { readAnswers } from './answers.js';

const settled = 'exists (select 1 from settlement t where t.response_id = r.id)';
const conditions: Record<LedgerShow, string> = {
  all: 'not r.no_answer',
  open: `not r.no_answer and not ${settled}`,
  settled: `not r.no_answer and ${settled}`,
  sample: 'not r.no_answer and exists (select 1 from sample_member s where s.response_id = r.id)',
  changed: 'r.changed_at is not null',
  no_answer: 'r.no_answer',
};

/** One page of the answers to a question, in the order in which they were imported. */
export async function readLedger(
  em: EntityManager,
  questionId: number,
  { show, words, after, limit }: z.infer<typeof ledgerQuery>,
): Promise<LedgerPage> {
  const holding = words.trim().replaceAll(/[\\%_]/g, '\\$&');
  const where = `r.question_id = ? and ${conditions[show]}${holding && ' and r.text ilike ?'}`;
  const values = [questionId, ...(holding ? [`%${holding}%`] : [])];
  const counted =
    after === undefined
      ? await row<{ total: number }>(
          em,
          `select count(*)::int as total from response r where ${where}`,
          values,
        )
      : null;
  const ids = await rows<{ id: number }>(
    em,
    `select r.id from response r where ${where} and r.respondent_id > coalesce(
       (select respondent_id from response where id = ?), 0)
     order by r.respondent_id limit ?`,
    [...values, after ?? 0, limit],
  );
  return {
    total: counted?.total ?? null,
    answers: await readAnswers(
      em,
      ids.map(({ id }) => id),
    ),
    next: ids.length === limit ? String(ids.at(-1)!.id) : null,
  };
}
