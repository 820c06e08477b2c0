import { randomInt } from 'node:crypto';
import type {
  CheckAnswers,
  CheckCreate,
  Checked,
  CheckList,
  CheckSide,
  Judge,
  SpotCheck,
  Suggestion,
} from '@yellow-thread/contract';
import { isWorseThanExpected, shareApplying } from '@yellow-thread/core/review';
import { simpleRandomSample } from '@yellow-thread/core/sampling';
import type { EntityManager } from '@mikro-orm/postgresql';
import { readAnswers } from '../coding/index.js';
import {
  type ChangeDiff,
  findMentions,
  inChange,
  isoTime,
  makeChange,
  rows,
  SpotCheckEntity,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import {
  asIso,
  decide,
  mentionsByAcceptance,
  nameOf,
  suggestionColumns,
  type ReviewTarget,
} from './decide.js';
import { spotChecksTexts } from '../wording/review.js';

const inBulk = `s.question_id = :questionId and s.code_id = :codeId and s.state = :side and s.bulk`;

/** The spot checks of a code and question with what they found, newest first. */
export async function listChecks(
  em: EntityManager,
  { questionId, codeId }: ReviewTarget,
): Promise<CheckList> {
  const checks = await rows<Omit<Checked, 'found' | 'isWorse'>>(
    em,
    `select c.id, c.side, c.drawn_from as "drawnFrom", c.expected, ${isoTime('c.drawn_at')} as "drawnAt",
       count(a.response_id)::int as size,
       (count(*) filter (where a.verdict = 'applies'))::int as applies,
       (count(*) filter (where a.verdict = 'not'))::int as "not",
       (count(*) filter (where a.verdict = 'unsure'))::int as unsure
     from spot_check c left join spot_check_answer a on a.check_id = c.id
     where c.question_id = :questionId and c.code_id = :codeId group by c.id order by c.drawn_at desc`,
    { questionId, codeId },
  );
  const unread = await rows<{ state: CheckSide; count: number }>(
    em,
    `select s.state, count(*)::int as count from suggestion s
     where s.question_id = :questionId and s.code_id = :codeId and s.bulk group by s.state`,
    { questionId, codeId },
  );
  const countOf = (side: CheckSide) => unread.find((one) => one.state === side)?.count ?? 0;
  return {
    checks: checks.map((check) => {
      const found = shareApplying(check.applies, check.not);
      return { ...check, found, isWorse: isWorseThanExpected(check.side, found, check.expected) };
    }),
    unread: { accepted: countOf('accepted'), refused: countOf('refused') },
  };
}

/**
 * Draws some of what was decided in bulk at random, to be read.
 *
 * @throws Problem nothing_in_bulk
 */
export async function drawCheck(
  em: EntityManager,
  maker: Maker,
  { questionId, codeId }: ReviewTarget,
  { id, side, size }: CheckCreate,
) {
  await inChange(em, async (tx) => {
    const name = await nameOf(tx, maker.studyId, codeId);
    // the same request once more, since its answer was lost
    if ((await tx.count(SpotCheckEntity, { id })) > 0) return;
    const decided = await rows<{ responseId: number; probability: number }>(
      tx,
      `select s.response_id as "responseId", s.probability from suggestion s
       where ${inBulk} order by s.response_id`,
      { questionId, codeId, side },
    );
    if (decided.length === 0) throw problems.nothingInBulk();
    const drawn = simpleRandomSample(
      decided.length,
      Math.min(size, decided.length),
      randomInt(2 ** 31),
    );
    const check: SpotCheck = {
      id,
      studyId: maker.studyId,
      questionId,
      codeId,
      side,
      drawnFrom: decided.length,
      expected: decided.reduce((sum, one) => sum + one.probability, 0) / decided.length,
      drawnBy: maker.accountId,
      drawnAt: new Date().toISOString(),
    };
    await makeChange(tx, {
      ...maker,
      summary: spotChecksTexts.drawingSpotCheck(drawn.length, name),
      diff: {
        spot_check: { added: [check], updated: [], removed: [] },
        spot_check_answer: {
          added: drawn.map((i) => ({
            checkId: id,
            responseId: decided[i]!.responseId,
            verdict: null,
          })),
          updated: [],
          removed: [],
        },
      },
    });
  });
}

/** The answers of a check in an order that says nothing. */
export async function readCheck(
  em: EntityManager,
  { questionId, codeId }: ReviewTarget,
  checkId: string,
): Promise<CheckAnswers> {
  const members = await rows<{ responseId: number; verdict: Judge['verdict'] }>(
    em,
    `select a.response_id as "responseId", a.verdict
     from spot_check_answer a join spot_check c on c.id = a.check_id
     where c.id = :checkId and c.question_id = :questionId and c.code_id = :codeId
     order by md5(a.check_id::text || a.response_id)`,
    { checkId, questionId, codeId },
  );
  if (members.length === 0) throw problems.notFound(spotChecksTexts.spotCheck);
  const answers = await readAnswers(
    em,
    members.map((one) => one.responseId),
  );
  return {
    answers: members.map(({ responseId, verdict }, i) => {
      const { externalId, background, text } = answers[i]!;
      return { responseId, externalId, background, text, verdict };
    }),
  };
}

/**
 * Keeps what somebody found on reading an answer of a check. What was read is no longer decided in bulk: it stands as
 * the reader decided, and is learnt from. An unsure verdict leaves the decision as it is.
 */
export async function judge(
  em: EntityManager,
  {
    maker,
    target: { questionId, codeId },
    checkId,
    verdict: { responseId, verdict },
  }: { maker: Maker; target: ReviewTarget; checkId: string; verdict: Judge },
) {
  await inChange(em, async (tx) => {
    const name = await nameOf(tx, maker.studyId, codeId);
    const [member] = await rows<{ verdict: Judge['verdict'] }>(
      tx,
      `select a.verdict from spot_check_answer a join spot_check c on c.id = a.check_id
       where c.id = :checkId and c.question_id = :questionId and c.code_id = :codeId and a.response_id = :responseId`,
      { checkId, questionId, codeId, responseId },
    );
    if (!member) throw problems.notFound(spotChecksTexts.answerSpotCheck);
    if (member.verdict === verdict) return;
    const [stored] = await rows<Suggestion>(
      tx,
      `select ${suggestionColumns} from suggestion s
       where s.question_id = :questionId and s.code_id = :codeId and s.response_id = :responseId for update`,
      { questionId, codeId, responseId },
    );
    const diff: ChangeDiff = {
      spot_check_answer: {
        added: [],
        removed: [],
        updated: [
          { from: { checkId, responseId, ...member }, to: { checkId, responseId, verdict } },
        ],
      },
    };
    if (stored && stored.state !== 'open' && (verdict === 'applies' || verdict === 'not')) {
      const suggestion = { ...stored, decidedAt: asIso(stored.decidedAt) };
      const state = verdict === 'applies' ? 'accepted' : 'refused';
      const decided = decide([suggestion], state, { by: maker.accountId, bulk: false });
      const given = await mentionsByAcceptance(tx, codeId, responseId);
      const anew = await mentionsAnew(tx, codeId, responseId, decided.mention?.added ?? []);
      Object.assign(diff, decided, { mention: { updated: [], added: anew, removed: given } });
    }
    await makeChange(tx, { ...maker, summary: spotChecksTexts.spotCheck2(name), diff });
  });
}

/** The mention by acceptance, unless somebody gave the code by hand meanwhile. */
async function mentionsAnew(
  em: EntityManager,
  codeId: string,
  responseId: number,
  added: NonNullable<ChangeDiff['mention']>['added'],
) {
  const byHand = await findMentions(
    em,
    `m.code_id = :codeId and m.response_id = :responseId and m.origin not in ('accepted', 'bulk')`,
    { codeId, responseId },
  );
  return byHand.length > 0 ? [] : added;
}

/** Opens again what was decided in bulk on one side and nobody has read since. @returns how many */
export async function reopenBulk(
  em: EntityManager,
  maker: Maker,
  { questionId, codeId }: ReviewTarget,
  side: CheckSide,
): Promise<number> {
  return inChange(em, async (tx) => {
    const name = await nameOf(tx, maker.studyId, codeId);
    const decided = await rows<Suggestion>(
      tx,
      `select ${suggestionColumns} from suggestion s where ${inBulk} order by s.response_id`,
      { questionId, codeId, side },
    );
    if (decided.length === 0) return 0;
    const diff = decide(
      decided.map((one) => ({ ...one, decidedAt: asIso(one.decidedAt) })),
      'open',
      { by: maker.accountId, bulk: false },
    );
    const given = await findMentions(
      tx,
      `m.code_id = :codeId and m.origin = 'bulk' and m.response_id = any(:responseIds::int[])`,
      { codeId, responseIds: decided.map((one) => one.responseId) },
    );
    diff.mention = { added: [], updated: [], removed: given };
    await makeChange(tx, {
      ...maker,
      summary: spotChecksTexts.openingAgain(decided.length, name),
      diff,
    });
    return decided.length;
  });
}
