import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { TrainedCode } from '@yellow-thread/contract';
import {
  findConfused,
  type CodeResult,
  type TrainingInput,
  type TrainingResult,
} from '@yellow-thread/core/learning';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import { row, rows } from '../database/index.js';
import type { JobContext, JobHandler } from '../jobs/index.js';
import { readTrainingInput } from './material.js';
import { replaceOpenSuggestions, type KeptSuggestions } from './suggestions.js';

export const trainPayload = z.object({ seed: z.number().int(), scope: z.string().default('') });

/** So many of the last runs can be put in force again. */
const RUNS_KEPT = 5;
/** Below so much work a second thread would only read the same texts once more. */
const WORTH_TWO_THREADS = 4000;

/** Trains the models of a question on threads, then puts the run in force in one transaction. */
export const train: JobHandler = async (job, context) => {
  const begun = performance.now();
  const { seed, scope } = trainPayload.parse(job.payload);
  const questionId = job.questionId!;
  const { input, responseIds, fingerprint } = await readTrainingInput(
    context.em,
    job.studyId,
    questionId,
    { seed, scope },
  );
  const settled = input.answers.filter((answer) => answer.settled).length;
  const { codes, unseen } = await trainOnThreads(input, settled, context);
  const kept = codes.flatMap((result): KeptSuggestions[] =>
    result.state === 'too_few'
      ? []
      : [
          {
            codeId: result.codeId,
            suggestions: result.suggestions.map(({ answer, ...one }) => ({
              ...one,
              responseId: responseIds[answer]!,
            })),
          },
        ],
  );
  const outOfScope = responseIds.filter((_, i) => {
    const { settled, inScope } = input.answers[i]!;
    return !settled && inScope === false;
  });
  const outcome = await promisify(gzip)(JSON.stringify(kept), { level: 1 });
  const seconds = (performance.now() - begun) / 1000;
  return async (tx) => {
    const { id: runId } = await row<{ id: number }>(
      tx,
      `insert into training_run (study_id, question_id, seed, settled, answers, last_response_id,
         trained_by, finished_at, in_force_since, fingerprint, struck, scope, out_of_scope, seconds, outcome,
         codes, confused)
       values (?, ?, ?, ?, ?, ?, ?, now(), now(), ?, ?, ?, ?, ?, ?, ?, ?) returning id`,
      [
        ...[job.studyId, questionId, seed, settled, responseIds.length, responseIds.at(-1)!],
        ...[job.createdBy, fingerprint, JSON.stringify(input.struck), scope],
        ...[scope === '' ? null : outOfScope, seconds, outcome],
        JSON.stringify(codes.map((result) => describe(result, responseIds))),
        JSON.stringify(findConfused(unseen)),
      ],
    );
    await replaceOpenSuggestions(tx, questionId, runId, kept);
    await forgetOldOutcomes(tx, questionId);
  };
};

/** One code's model needs nothing of another's, so they are dealt out to two threads where that is worth it. */
async function trainOnThreads(
  input: TrainingInput,
  settled: number,
  { threads, signal, report }: JobContext,
): Promise<TrainingResult> {
  const ids = input.codes.map(({ id }) => id);
  const parts =
    settled * ids.length < WORTH_TWO_THREADS
      ? [ids]
      : [0, 1].map((part) => ids.filter((_, i) => i % 2 === part));
  const progress = parts.map(() => ({ done: 0, of: 1 }));
  const results = await Promise.all(
    parts.map((part, i) =>
      threads.run(
        'trainQuestion',
        { ...input, only: new Set(part) },
        {
          signal,
          onProgress: (now) => {
            progress[i] = now;
            report({
              done: progress.reduce((sum, { done }) => sum + done, 0),
              of: progress.reduce((sum, { of }) => sum + of, 0),
            });
          },
        },
      ),
    ),
  );
  const codes = new Map(results.flatMap((one) => one.codes).map((one) => [one.codeId, one]));
  const unseen = new Map(results.flatMap((one) => one.unseen).map((one) => [one.codeId, one]));
  return {
    codes: ids.map((id) => codes.get(id)!),
    unseen: ids.flatMap((id) => unseen.get(id) ?? []),
  };
}

/** What is kept of a result with the run: its figures and words, not its suggestions. */
function describe(result: CodeResult, responseIds: readonly number[]): TrainedCode {
  if (result.state === 'too_few') return result;
  const { suggestions, wrongFor, wrongAgainst, ...figures } = result;
  const named = (mistakes: typeof wrongFor) =>
    mistakes.map(({ answer, probability }) => ({ responseId: responseIds[answer]!, probability }));
  return {
    ...figures,
    wrongFor: named(wrongFor),
    wrongAgainst: named(wrongAgainst),
    suggested: suggestions.length,
  };
}

const forgetOldOutcomes = (em: EntityManager, questionId: number) =>
  rows(
    em,
    `update training_run set outcome = null where question_id = ? and outcome is not null and id not in (
       select id from training_run where question_id = ? order by in_force_since desc, id desc limit ?)`,
    [questionId, questionId, RUNS_KEPT],
  );
