import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import type { TrainingRun } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  isoTime,
  rows,
  notifyOfRun,
  TrainingRunEntity,
  type SqlValues,
} from '../database/index.js';
import { problems } from '../wording/problems.js';
import { replaceOpenSuggestions, type KeptSuggestions } from './suggestions.js';
import { runsTexts } from '../wording/learning.js';

const head = `t.id, t.settled, t.answers, t.seed, ${isoTime('t.finished_at')} as "finishedAt",
  t.fingerprint, t.scope, t.learnt_from_bulk as "learntFromBulk", t.seconds, t.excluded`;
const newest = 'order by t.current_since desc, t.id desc limit 1';

type StoredRun = TrainingRun & { lastResponseId: number };

/** A run with what it says of the codes that the codebook still has. */
async function findRun(
  em: EntityManager,
  where: string,
  values: SqlValues,
): Promise<StoredRun | null> {
  const [run] = await rows<StoredRun>(
    em,
    `select ${head}, t.last_response_id as "lastResponseId", t.confused,
       coalesce((
         select jsonb_agg(learnt.value - 'answers' || jsonb_build_object('likely', (
           select count(*) from jsonb_array_elements(learnt.value->'answers') likely
           where not exists (select 1 from settlement s where s.response_id = likely::int))))
         from jsonb_array_elements(t.themes) as learnt
         join theme h on h.id = (learnt.value->>'themeId')::uuid), '[]') as themes,
       coalesce((
         -- runs of older versions say nothing of the share of a code without a model
         select jsonb_agg('{"share": null}' || trained.value order by trained.ordinality)
         from jsonb_array_elements(t.codes) with ordinality as trained
         join code c on c.id = (trained.value->>'codeId')::uuid), '[]') as codes
     from training_run t where ${where} ${newest}`,
    values,
  );
  return run ?? null;
}

/** The current run for a question: the newest complete one, or one that was used again. */
export const currentRun = (em: EntityManager, questionId: number) =>
  findRun(em, 't.question_id = :questionId', { questionId });

/** What a run's model of a code said of settled answers that it had not seen. */
export async function readUnseen(
  em: EntityManager,
  runId: number,
  codeId: string,
): Promise<{ yes: number[]; no: number[] }> {
  const [run] = await rows<{ unseen: { yes: number[]; no: number[] } | null }>(
    em,
    'select unseen->:codeId as unseen from training_run where id = :runId',
    { codeId, runId },
  );
  return run?.unseen ?? { yes: [], no: [] };
}

/** @throws Problem not_found */
export async function readRun(em: EntityManager, questionId: number, runId: number) {
  const run = await findRun(em, 't.question_id = :questionId and t.id = :runId', {
    questionId,
    runId,
  });
  if (!run) throw problems.notFound(runsTexts.trainingRun);
  return run;
}

/** The runs of a question, newest first. */
export const listRuns = (em: EntityManager, questionId: number) =>
  rows<Omit<TrainingRun, 'codes' | 'themes' | 'confused'> & { inForce: boolean; isKept: boolean }>(
    em,
    `select ${head}, t.outcome is not null as "isKept",
       t.id = (select t.id from training_run t where t.question_id = :questionId ${newest}) as "inForce"
     from training_run t where t.question_id = :questionId order by t.id desc limit 50`,
    { questionId },
  );

/**
 * Makes an earlier run the current one: its suggestions replace the open ones; what was decided stays.
 *
 * @throws Problem run_not_kept when its suggestions are gone, not_found
 */
export async function reinstateRun(em: EntityManager, questionId: number, runId: number) {
  await em.transactional(async (tx) => {
    await rows(tx, 'select id from question where id = :questionId for no key update', {
      questionId,
    });
    const [run] = await tx.find(
      TrainingRunEntity,
      { questionId, id: runId },
      { fields: ['outcome', 'studyId'] },
    );
    if (!run) throw problems.notFound(runsTexts.trainingRun);
    if (!run.outcome) throw problems.runNotKept();
    const kept = JSON.parse(
      (await promisify(gunzip)(run.outcome)).toString('utf8'),
    ) as KeptSuggestions[];
    await replaceOpenSuggestions(tx, questionId, runId, kept);
    await rows(tx, 'update training_run set current_since = clock_timestamp() where id = :runId', {
      runId,
    });
    await notifyOfRun(tx, run.studyId);
  });
}
