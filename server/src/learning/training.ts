import type { ExcludedWord, Training } from '@yellow-thread/contract';
import { FEW_EXAMPLES, FEWEST_EXAMPLES } from '@yellow-thread/core/learning';
import type { EntityManager } from '@mikro-orm/postgresql';
import { selectFields, row, rows } from '../database/index.js';
import { newestJob } from '../jobs/index.js';
import { canEstimate } from './material.js';
import { listRuns, currentRun } from './runs.js';

/** What could be learnt from now, what was learnt last, and the job in progress. */
export async function describeTraining(
  em: EntityManager,
  studyId: number,
  questionId: number,
): Promise<Training> {
  const inSample = (kinds: string) =>
    `exists (select 1 from sample_member m join sample s on s.id = m.sample_id
       where m.response_id = r.id and s.question_id = r.question_id and s.kind in (${kinds}))`;
  const counts = await row<
    Pick<
      Training,
      | 'settled'
      | 'answered'
      | 'settledInRandom'
      | 'settledInTelling'
      | 'unreadInBulk'
      | 'canEstimate'
    >
  >(
    em,
    `select count(*)::int as answered, (count(*) filter (where settled))::int as settled,
       (count(*) filter (where settled and ${inSample(`'random', 'stratified'`)}))::int as "settledInRandom",
       (count(*) filter (where settled and ${inSample(`'most_telling'`)}
         and not ${inSample(`'random', 'stratified'`)}))::int as "settledInTelling",
       (select count(*) from suggestion s where s.question_id = :questionId and s.bulk)::int as "unreadInBulk",
       ${canEstimate(questionId)} as "canEstimate"
     from (select r.id, r.question_id, exists (
         select 1 from settlement t where t.response_id = r.id) as settled
       from response r where r.question_id = :questionId and not r.no_answer) r`,
    { questionId },
  );
  const examples = await rows<Training['examples'][number]>(
    em,
    `select m.code_id as "codeId", count(distinct m.response_id)::int as examples
     from mention m join response r on r.id = m.response_id
     where r.question_id = :questionId and exists (select 1 from settlement t where t.response_id = r.id)
     group by m.code_id order by examples desc, m.code_id`,
    { questionId },
  );
  return {
    ...counts,
    fewestExamples: FEWEST_EXAMPLES,
    fewExamples: FEW_EXAMPLES,
    examples,
    excluded: await readExcludedWords(em, studyId),
    run: await currentRun(em, questionId),
    runs: await listRuns(em, questionId),
    job: await newestJob(em, 'train', { questionId }),
  };
}

/** Whether there is anything to learn from. */
export async function hasSettled(em: EntityManager, questionId: number): Promise<boolean> {
  const found = await rows(
    em,
    `select 1 from settlement t join response r on r.id = t.response_id
     where r.question_id = :questionId and not r.no_answer limit 1`,
    { questionId },
  );
  return found.length > 0;
}

const readExcludedWords = (em: EntityManager, studyId: number) =>
  rows<ExcludedWord>(
    em,
    `select ${selectFields('excluded_word', 's')}
     from excluded_word s left join code c on c.id = s.code_id
     where s.study_id = :studyId and (s.code_id is null or c.id is not null) order by s.word, s.id`,
    { studyId },
  );
