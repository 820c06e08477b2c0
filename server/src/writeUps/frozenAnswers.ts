import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import { rows, FrozenAnswersEntity } from '../database/index.js';
import { readAnswerRows, type AnswerRow } from '../report/index.js';

const pageSchema = z.array(
  z.object({
    respondent: z.string(),
    question: z.string(),
    answer: z.string(),
    settled: z.string(),
    code: z.string(),
    theme: z.string(),
    passage: z.string(),
    origin: z.string(),
    coder: z.string(),
  }),
);

/** Keeps the answers to some questions with a frozen copy, coded as they are now. */
export async function keepAnswers(
  em: EntityManager,
  copy: string,
  questionIds: readonly number[],
): Promise<void> {
  let page = 0;
  for await (const some of readAnswerRows(em, questionIds, null))
    await em.insert(FrozenAnswersEntity, {
      writeUpId: copy,
      page: page++,
      rows: await promisify(gzip)(JSON.stringify(some)),
    });
}

/** A copy of a frozen copy has its answers too. */
export const copyAnswers = (em: EntityManager, copy: string, of: string) =>
  rows(
    em,
    `insert into frozen_answers (write_up_id, page, rows)
     select :copy, page, rows from frozen_answers where write_up_id = :of`,
    { copy, of },
  );

/** The answers as they were when a copy was frozen, page by page; none in copies from before they were kept. */
export async function* readFrozenAnswers(
  em: EntityManager,
  copy: string,
): AsyncGenerator<AnswerRow[]> {
  for (let page = 0; ; page++) {
    // a page is let go of when the next is read: an identity map would keep them all
    const found = await em.findOne(
      FrozenAnswersEntity,
      { writeUpId: copy, page },
      { disableIdentityMap: true },
    );
    if (!found) return;
    yield pageSchema.parse(JSON.parse(String(await promisify(gunzip)(found.rows))));
  }
}
