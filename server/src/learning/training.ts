import type { Training, TrainingRun } from '@yellow-thread/contract';
import { FEW_EXAMPLES, FEWEST_EXAMPLES } from '@yellow-thread/core/learning';
import type { EntityManager } from '@mikro-orm/postgresql';
import { row, rows } from '../database/index.js';
import { newestJob } from '../jobs/index.js';

/** The run in force for a question: the newest complete one, of the codes that the codebook still has. */
export async function runInForce(
  em: EntityManager,
  questionId: number,
): Promise<(TrainingRun & { lastResponseId: number }) | null> {
  const [run] = await rows<TrainingRun & { lastResponseId: number; finishedAt: Date | string }>(
    em,
    `select t.id, t.settled, t.answers, t.seed, t.finished_at as "finishedAt",
       t.last_response_id as "lastResponseId",
       coalesce((
         select jsonb_agg(trained.value order by trained.ordinality)
         from jsonb_array_elements(t.codes) with ordinality as trained
         join code c on c.id = (trained.value->>'codeId')::uuid), '[]') as codes
     from training_run t where t.question_id = ? order by t.id desc limit 1`,
    [questionId],
  );
  return run ? { ...run, finishedAt: new Date(run.finishedAt).toISOString() } : null;
}

/** What could be learnt from now, what was learnt last, and the job under way. */
export async function describeTraining(em: EntityManager, questionId: number): Promise<Training> {
  const counts = await row<{ settled: number; answered: number }>(
    em,
    `select count(*)::int as answered, (count(*) filter (where exists (
       select 1 from settlement t where t.response_id = r.id)))::int as settled
     from response r where r.question_id = ? and not r.no_answer`,
    [questionId],
  );
  const examples = await rows<Training['examples'][number]>(
    em,
    `select m.code_id as "codeId", count(distinct m.response_id)::int as examples
     from mention m join response r on r.id = m.response_id
     where r.question_id = ? and exists (select 1 from settlement t where t.response_id = r.id)
     group by m.code_id`,
    [questionId],
  );
  return {
    ...counts,
    fewestExamples: FEWEST_EXAMPLES,
    fewExamples: FEW_EXAMPLES,
    examples,
    run: await runInForce(em, questionId),
    job: await newestJob(em, 'train', questionId),
  };
}
