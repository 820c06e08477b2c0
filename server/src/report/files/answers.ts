import type { Origin } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../../database/index.js';
import type { AnswerRow } from './workbook.js';
import { answersTexts } from '../../wording/report.js';

const originWords: Record<Origin, string> = {
  hand: answersTexts.hand,
  accepted: answersTexts.suggestionAccepted,
  bulk: answersTexts.acceptedBulk,
  import: answersTexts.cameSheet,
  words: answersTexts.wordsLooked,
};
const PAGE = 1000;

/**
 * Every answer to some questions with its codes and passages, a row a mention, and one for an answer without any; read
 * page by page, so that no more than a page stands in memory.
 */
export async function* readAnswerRows(
  em: EntityManager,
  questionIds: readonly number[],
  within: readonly number[] | null,
): AsyncGenerator<AnswerRow[]> {
  let after = 0;
  for (;;) {
    const found = await rows<
      Omit<AnswerRow, 'origin' | 'settled' | 'passage'> & {
        id: number;
        settled: boolean;
        origin: Origin | null;
        start: number | null;
        end: number | null;
      }
    >(
      em,
      `with page as (
         select r.id, r.respondent_id, r.question_id, r.text from response r
         where r.question_id = any(:questionIds::int[]) and not r.no_answer and r.id > :after
           ${within ? 'and r.respondent_id = any(:within::int[])' : ''}
         order by r.id limit ${PAGE})
       select page.id, p.external_id as respondent, q.label as question, page.text as answer,
         exists (select 1 from settlement s where s.response_id = page.id) as settled,
         coalesce(c.name, '') as code, coalesce(t.name, '') as theme, coalesce(a.name, '') as coder,
         m.origin, m.start, m."end"
       from page join respondent p on p.id = page.respondent_id join question q on q.id = page.question_id
       left join mention m on m.response_id = page.id
       left join code c on c.id = m.code_id left join theme t on t.id = c.theme_id
       left join account a on a.id = m.coder_id
       order by page.id, m.start nulls first, m.created_at, m.id`,
      { questionIds, after, within },
    );
    if (found.length === 0) return;
    after = found.at(-1)!.id;
    yield found.map(({ settled, origin, start, end, ...row }) => ({
      respondent: row.respondent,
      question: row.question,
      answer: row.answer,
      code: row.code,
      theme: row.theme,
      coder: row.coder,
      settled: settled ? 'yes' : 'no',
      origin: origin ? originWords[origin] : '',
      passage: start !== null && end !== null ? row.answer.slice(start, end) : '',
    }));
  }
}
