import { randomInt } from 'node:crypto';
import type { DecideByModel, ModelDecision } from '@yellow-thread/contract';
import { isReliable, modelVerdict } from '@yellow-thread/core/review';
import { simpleRandomSample } from '@yellow-thread/core/sampling';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  asRecord,
  CodeEntity,
  codesInUse,
  makeChange,
  rows,
  CodeClosingEntity,
  ModelDecisionEntity,
  SampleEntity,
} from '../database/index.js';
import { currentRun } from '../learning/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { decideByModelTexts } from '../wording/review.js';

/**
 * Leaves everything that is open of a question to the models in use, and draws a random check among it. What they
 * decide is counted nowhere: it is estimated, corrected by the check once that is read.
 *
 * @returns how many answers were left to the models, and how many drawn for the check
 * @throws Problem not_found without a training, models_unreliable where a code's model cannot be relied on and the
 *   person did not say otherwise, nothing_to_draw
 */
export async function decideByModel(
  em: EntityManager,
  maker: Maker,
  questionId: number,
  { relied, check }: DecideByModel,
): Promise<{ answers: number; drawn: number }> {
  const run = await currentRun(em, questionId);
  if (!run) throw problems.notFound(decideByModelTexts.trainingRun);
  const unreliable = await unreliableCodes(em, questionId, run);
  const left = unreliable.filter((id) => !relied.includes(id));
  if (left.length > 0) throw problems.modelsUnreliable(await namesOf(em, left), left);
  return em.transactional(async (tx) => {
    await rows(tx, 'select id from question where id = :questionId for no key update', {
      questionId,
    });
    const open = await rows<{ id: number }>(
      tx,
      `select r.id from response r join training_run t on t.id = :id
       where r.question_id = :questionId and not r.no_answer and r.id <= t.last_response_id
         and r.id <> all(coalesce(t.out_of_scope, '{}'))
         and not exists (select 1 from settlement s where s.response_id = r.id)
       order by r.id`,
      { id: run.id, questionId },
    );
    if (open.length < 2) throw problems.nothingToDraw();
    const drawn = simpleRandomSample(open.length, Math.min(check, open.length), randomInt(2 ** 31));
    const sampleId = await tx.insert(SampleEntity, { questionId, kind: 'check', seed: 0 });
    await rows(
      tx,
      'insert into sample_member (sample_id, response_id) select :sampleId, unnest(:drawn::int[])',
      { sampleId, drawn: drawn.map((i) => open[i]!.id) },
    );
    const standing = await findDecision(tx, questionId);
    const decision: ModelDecision = {
      studyId: maker.studyId,
      questionId,
      runId: run.id,
      relied: [...relied],
      lastResponseId: open.at(-1)!.id,
      sampleId,
      decidedBy: maker.accountId,
      decidedAt: new Date().toISOString(),
    };
    await makeChange(tx, {
      ...maker,
      summary: decideByModelTexts.leavingModels(open.length),
      diff: {
        model_decision: {
          added: standing ? [] : [decision],
          updated: standing ? [{ from: standing, to: decision }] : [],
          removed: [],
        },
      },
    });
    return { answers: open.length, drawn: drawn.length };
  });
}

/** What was left to the models is open again; what was read of the check stays settled. */
export async function withdrawFromModel(
  em: EntityManager,
  maker: Maker,
  questionId: number,
): Promise<void> {
  await em.transactional(async (tx) => {
    const standing = await findDecision(tx, questionId);
    if (!standing) return;
    await makeChange(tx, {
      ...maker,
      summary: decideByModelTexts.takingAnswersBackModels,
      diff: { model_decision: { added: [], updated: [], removed: [standing] } },
    });
  });
}

/** Codes of the book that are not closed and of which no model can be left to decide. */
async function unreliableCodes(
  em: EntityManager,
  questionId: number,
  { codes }: NonNullable<Awaited<ReturnType<typeof currentRun>>>,
): Promise<string[]> {
  const closed = await em.find(CodeClosingEntity, { questionId }, { fields: ['codeId'] });
  return (await codesInUse(em, questionId)).filter((id) => {
    if (closed.some(({ codeId }) => codeId === id)) return false;
    const trained = codes.find(({ codeId }) => codeId === id);
    const verdict =
      trained && trained.state !== 'too_few'
        ? modelVerdict(trained.quality, trained.state === 'weak')
        : null;
    return !isReliable(verdict);
  });
}

async function namesOf(em: EntityManager, ids: readonly string[]): Promise<string[]> {
  const codes = await em.find(CodeEntity, { id: { $in: [...ids] } }, { orderBy: { position: 1 } });
  return codes.map(({ name }) => name);
}

async function findDecision(em: EntityManager, questionId: number): Promise<ModelDecision | null> {
  const found = await em.findOne(ModelDecisionEntity, { questionId });
  return found && asRecord('model_decision', found);
}
