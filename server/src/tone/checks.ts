import { randomInt } from 'node:crypto';
import type { ToneCheck, ToneCheckFields } from '@yellow-thread/contract';
import { simpleRandomSample } from '@yellow-thread/core/sampling';
import type { EntityManager } from '@mikro-orm/postgresql';
import { findResponse } from '../coding/index.js';
import {
  asRecord,
  inChange,
  makeChange,
  rows,
  ToneCheckEntity,
  type ChangeDiff,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { checkToneTexts } from '../wording/tone.js';

/**
 * Records what a person found the tone of a line to be, in the place of what somebody found before; a request that
 * comes twice does so once.
 *
 * @throws Problem not_found, no_answer_to_code, passage_outside
 */
export async function checkTone(
  em: EntityManager,
  maker: Maker,
  { id, questionId }: { id: string; questionId: number },
  found: ToneCheckFields,
): Promise<void> {
  await inChange(em, async (tx) => {
    const response = await findResponse(tx, maker.studyId, found.responseId);
    if (response.questionId !== questionId) throw problems.notFound('answer');
    if (response.noAnswer) throw problems.noAnswerToCode();
    if (found.end > response.text.length) throw problems.passageOutside();
    const same = await tx.findOne(ToneCheckEntity, {
      responseId: found.responseId,
      start: found.start,
    });
    const from = same && asRecord('tone_check', same);
    const to: ToneCheck = {
      ...{ id: from?.id ?? id, studyId: maker.studyId, checkedBy: maker.accountId },
      ...found,
      // what was once read without a proposal stays so
      atRandom: found.atRandom || (from?.atRandom ?? false),
    };
    const tone_check: NonNullable<ChangeDiff['tone_check']> = from
      ? { added: [], updated: [{ from, to }], removed: [] }
      : { added: [to], updated: [], removed: [] };
    await makeChange(tx, { ...maker, summary: checkToneTexts.tone, diff: { tone_check } });
  });
}

/**
 * Draws answers at random, beside those that were drawn before, whose lines are read without a proposal in view.
 *
 * @returns how many were drawn
 * @throws Problem nothing_to_draw
 */
export async function drawToneSample(
  em: EntityManager,
  questionId: number,
  size: number,
): Promise<number> {
  return em.transactional(async (tx) => {
    // two people who draw at once draw one after the other
    await rows(tx, 'select id from question where id = :questionId for no key update', {
      questionId,
    });
    const candidates = await rows<{ id: number }>(
      tx,
      `select r.id from response r where r.question_id = :questionId and not r.no_answer
         and not exists (select 1 from tone_sample t where t.response_id = r.id)
       order by r.id`,
      { questionId },
    );
    if (candidates.length === 0) throw problems.nothingToDraw();
    const count = Math.min(size, candidates.length);
    const chosen = simpleRandomSample(candidates.length, count, randomInt(2 ** 31));
    await rows(
      tx,
      `insert into tone_sample (question_id, response_id) select :questionId, unnest(:ids::int[])`,
      { questionId, ids: chosen.map((i) => candidates[i]!.id) },
    );
    return count;
  });
}
