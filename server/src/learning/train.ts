import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { trainSchema, type Progress, type TrainedCode } from '@yellow-thread/contract';
import {
  findConfused,
  listSuggestions,
  partThemes,
  settledTextsOf,
  withThresholds,
  type CodeResult,
  type TrainingInput,
  type TrainingResult,
} from '@yellow-thread/core/learning';
import { raw, type EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import { notifyOfRun, rows, TrainingRunEntity } from '../database/index.js';
import type { JobContext, JobHandler } from '../jobs/index.js';
import { keepEstimates } from './estimates.js';
import { vectorsOfQuestion, type SharedVectors } from '../sentences/index.js';
import { readTrainingInput } from './material.js';
import { replaceOpenSuggestions, type KeptSuggestions } from './suggestions.js';

const trainPayload = trainSchema.extend({ seed: z.number().int() });

/** Latest runs that can always be used again; earlier ones as long as all take no more bytes than ROOM_FOR_RUNS. */
const RUNS_KEPT = 5;
const ROOM_FOR_RUNS = 64 * 1024 * 1024;
/** Below so much work a second thread would only read the same texts once more. */
const WORTH_TWO_THREADS = 4000;

/** Trains the models of a question on threads, then puts the current run in one transaction. */
export const train: JobHandler = async (job, context) => {
  const begun = performance.now();
  const asked = trainPayload.parse(job.payload);
  const { scope, learnFromBulk } = asked;
  const questionId = job.questionId!;
  const { input, responseIds, respondentIds, fingerprint } = await readTrainingInput(
    context.em,
    job.studyId,
    questionId,
    asked,
  );
  const settled = input.answers.filter((answer) => answer.settled).length;
  const read = await vectorsOfQuestion(job.studyId, questionId, context);
  const trained = await trainOnThreads(input, read?.vectors ?? null, settled, context);
  const { codes, themes, isTheme } = partThemes(input, trained.codes);
  const unseen = trained.unseen.filter(({ codeId }) => !isTheme(codeId));
  const kept = codes.flatMap((result): KeptSuggestions[] =>
    result.state === 'too_few'
      ? []
      : [
          {
            codeId: result.codeId,
            suggestions: listSuggestions(result.suggestions).map(({ answer, ...one }) => ({
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
    const runId = await tx.insert(TrainingRunEntity, {
      studyId: job.studyId,
      questionId,
      seed: asked.seed,
      settled,
      answers: responseIds.length,
      lastResponseId: responseIds.at(-1)!,
      trainedBy: job.createdBy,
      finishedAt: raw('now()'),
      currentSince: raw('now()'),
      fingerprint: read ? `${fingerprint} ${fingerprintOf(read)}` : fingerprint,
      excluded: input.excluded ?? [],
      scope,
      learntFromBulk: learnFromBulk,
      encoder: read?.encoder ?? null,
      outOfScope: scope === '' ? null : outOfScope,
      seconds,
      outcome,
      codes: codes.map((result) => describe(result, responseIds)),
      themes: themes.map((theme) => ({
        ...theme,
        answers: theme.answers.map((answer) => responseIds[answer]!),
      })),
      confused: findConfused(unseen),
      unseen: Object.fromEntries(unseen.map(asUnseen)),
      contradicted: learnFromBulk ? [] : await findContradicted(tx, questionId, kept),
    });
    await keepEstimates(tx, {
      runId,
      input,
      respondents: respondentIds,
      crossFitted: trained.crossFitted,
    });
    await replaceOpenSuggestions(tx, questionId, runId, kept);
    await forgetOldOutcomes(tx, questionId);
    await notifyOfRun(tx, job.studyId);
  };
};

/** What decides the vectors that models learn from. */
const fingerprintOf = ({ encoder, vectors }: { encoder: string; vectors: SharedVectors }): string =>
  createHash('sha256').update(encoder).update(vectors.hashes).digest('hex').slice(0, 16);

/** Models are independent of each other, so they are divided between two threads where that is worth it. */
async function trainOnThreads(
  input: TrainingInput,
  vectors: SharedVectors | null,
  settled: number,
  { threads, signal, report }: JobContext,
): Promise<TrainingResult> {
  const ids = input.codes.map(({ id }) => id);
  const parts =
    settled * ids.length < WORTH_TWO_THREADS
      ? [ids]
      : [0, 1].map((part) => ids.filter((_, i) => i % 2 === part));
  const progress = parts.map((): Progress => ({ done: 0, of: 1 }));
  const results = await Promise.all(
    parts.map((part, i) =>
      threads.run(
        'trainCodes',
        { input: { ...input, only: new Set(part) }, vectors },
        {
          signal,
          onProgress: (now) => {
            progress[i] = now;
            report({
              ...added(progress),
              codes: added(progress.flatMap(({ codes }) => codes ?? [])),
            });
          },
        },
      ),
    ),
  );
  const codes = new Map(results.flatMap((one) => one.codes).map((one) => [one.codeId, one]));
  const outcomeOf = new Map(results.flatMap((one) => one.outcomes).map((one) => [one.codeId, one]));
  const outcomes = ids.flatMap((id) => outcomeOf.get(id) ?? []);
  const placed = await threads.run(
    'placeThresholds',
    { outcomes, settledTexts: settledTextsOf(input), seed: input.seed },
    { signal },
  );
  const trained = {
    codes: ids.map((id) => codes.get(id)!),
    outcomes,
    crossFitted: new Map(results.flatMap((one) => [...one.crossFitted])),
  };
  return withThresholds(trained, placed);
}

const added = (parts: readonly Pick<Progress, 'done' | 'of'>[]) => ({
  done: parts.reduce((sum, { done }) => sum + done, 0),
  of: parts.reduce((sum, { of }) => sum + of, 0),
});

/** What a code's model said of settled answers that it had not seen, separated by whether the code is there. */
function asUnseen({ codeId, settledLabels, outOfFold }: TrainingResult['unseen'][number]) {
  const said = (label: number) =>
    [...outOfFold]
      .filter((_, place) => settledLabels[place] === label)
      .map((p) => Number(p.toFixed(4)))
      .sort((x, y) => y - x);
  return [codeId, { yes: said(1), no: said(0) }] as const;
}

const surelyNot = 0.1;
const surely = 0.9;
const mostContradicted = 200;

/** Decisions in bulk of which models that did not learn from them are now sure of the opposite. */
async function findContradicted(
  em: EntityManager,
  questionId: number,
  kept: readonly KeptSuggestions[],
) {
  const said = new Map(
    kept.map(({ codeId, suggestions }) => [
      codeId,
      new Map(suggestions.map((one) => [one.responseId, one.probability])),
    ]),
  );
  const decided = await rows<{
    codeId: string;
    responseId: number;
    state: 'accepted' | 'refused';
  }>(
    em,
    `select s.code_id as "codeId", s.response_id as "responseId", s.state from suggestion s
     where s.question_id = :questionId and s.bulk and not exists (
       select 1 from settlement t where t.response_id = s.response_id)
     order by s.code_id, s.response_id`,
    { questionId },
  );
  return decided
    .flatMap((one) => {
      const ofCode = said.get(one.codeId);
      if (!ofCode) return [];
      // what is too unlikely to be suggested is not kept
      const probability = ofCode.get(one.responseId) ?? 0;
      const isOpposite = one.state === 'accepted' ? probability < surelyNot : probability > surely;
      return isOpposite ? [{ ...one, probability }] : [];
    })
    .slice(0, mostContradicted);
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
    suggested: suggestions.answers.length,
  };
}

const forgetOldOutcomes = (em: EntityManager, questionId: number) =>
  rows(
    em,
    `with sized as (
       select id, row_number() over newest as place, sum(size) over newest as room
       from (
         select t.id, t.current_since, octet_length(t.outcome) + coalesce((
           select sum(octet_length(p.predicted)) from run_prediction p where p.run_id = t.id), 0) as size
         from training_run t where t.question_id = :questionId and t.outcome is not null) kept
       window newest as (order by current_since desc, id desc)),
     forgotten as (
       update training_run t set outcome = null from sized
       where t.id = sized.id and place > :runsKept and room > :roomForRuns
         -- the shares of what was left to models rest on what these said
         and not exists (select 1 from model_decision d where d.run_id = t.id)
       returning t.id)
     delete from run_sample where run_id in (select id from forgotten)`,
    { questionId, runsKept: RUNS_KEPT, roomForRuns: ROOM_FOR_RUNS },
  );
