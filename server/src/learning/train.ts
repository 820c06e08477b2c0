import type { TrainedCode } from '@yellow-thread/contract';
import { trainQuestion, type CodeResult } from '@yellow-thread/core/learning';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import { blankAsides } from '@yellow-thread/core/text';
import { CodeEntity, copyRows, row, rows, StudyEntity } from '../database/index.js';
import type { JobHandler } from '../jobs/index.js';
import { problems } from '../problems.js';

export const trainPayload = z.object({ seed: z.number().int() });
type Input = Parameters<typeof trainQuestion>[0];

/** Trains the models of a question on a thread, then puts the run in force in one transaction. */
export const train: JobHandler = async (job, { em, threads, signal, report }) => {
  const { seed } = trainPayload.parse(job.payload);
  const questionId = job.questionId!;
  const answers = await rows<{ id: number; text: string; settled: boolean; codes: string[] }>(
    em,
    `select r.id, r.text,
       exists (select 1 from settlement t where t.response_id = r.id) as settled,
       array(select distinct m.code_id::text from mention m where m.response_id = r.id) as codes
     from response r where r.question_id = ? and not r.no_answer order by r.id`,
    [questionId],
  );
  const settled = answers.filter((answer) => answer.settled).length;
  if (settled === 0) throw problems.nothingSettled();
  const codes = await em.find(CodeEntity, { studyId: job.studyId }, { orderBy: { id: 'asc' } });
  const { asides } = await em.findOneOrFail(StudyEntity, job.studyId);
  const input: Input = {
    seed,
    answers: answers.map((answer) => ({
      ...answer,
      // of the same length, so that evidence stands where it stands in the answer
      text: blankAsides(answer.text, asides),
      codes: new Set(answer.codes),
    })),
    codes: codes.map(({ id, name, definition, include }) => ({ id, name, definition, include })),
  };
  const results = await threads.run('trainQuestion', input, { signal, onProgress: report });
  return async (tx) => {
    const { id: runId } = await row<{ id: number }>(
      tx,
      `insert into training_run (study_id, question_id, seed, settled, answers, last_response_id,
         trained_by, finished_at, codes)
       values (?, ?, ?, ?, ?, ?, ?, now(), ?) returning id`,
      [
        job.studyId,
        questionId,
        seed,
        settled,
        answers.length,
        Math.max(...answers.map((answer) => answer.id)),
        job.createdBy,
        JSON.stringify(results.map(describe)),
      ],
    );
    const ids = answers.map((answer) => answer.id);
    await replaceOpenSuggestions(tx, questionId, runId, ids, results);
  };
};

/** What is kept of a result with the run: its figures and words, not its suggestions. */
function describe(result: CodeResult): TrainedCode {
  if (result.state === 'too_few') return result;
  const { suggestions, ...figures } = result;
  return { ...figures, suggested: suggestions.length };
}

/** Open suggestions give way to the new run's; decided ones stay as they are. */
async function replaceOpenSuggestions(
  em: EntityManager,
  questionId: number,
  runId: number,
  responseIds: number[],
  results: CodeResult[],
) {
  await rows(em, `delete from suggestion where question_id = ? and state = 'open'`, [questionId]);
  await rows(
    em,
    `create temporary table fresh_suggestion
       (code_id uuid, response_id int, probability double precision, evidence jsonb)
     on commit drop`,
  );
  await copyRows(
    em,
    'fresh_suggestion',
    ['code_id', 'response_id', 'probability', 'evidence'],
    results.flatMap((result) =>
      result.state === 'too_few'
        ? []
        : result.suggestions.map((one) => [
            result.codeId,
            responseIds[one.answer]!,
            one.probability,
            JSON.stringify(one.evidence),
          ]),
    ),
  );
  // a code that was removed while its model was fitted takes its suggestions with it
  await rows(
    em,
    `insert into suggestion (question_id, code_id, response_id, run_id, probability, evidence)
     select ?, f.code_id, f.response_id, ?, f.probability, f.evidence
     from fresh_suggestion f join code c on c.id = f.code_id
     on conflict do nothing`,
    [questionId, runId],
  );
  // tens of thousands of new rows: the planner is told at once, not at its own next round
  await rows(em, 'analyze suggestion');
}
