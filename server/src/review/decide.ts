import { randomUUID } from 'node:crypto';
import type {
  Decide,
  Decision,
  Mention,
  DecideByThreshold,
  Suggestion,
} from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  selectFields,
  asRecord,
  type ChangeDiff,
  CodeEntity,
  findMentions,
  inChange,
  makeChange,
  rows,
  withinGroup,
} from '../database/index.js';
import { findResponse, refusePassage } from '../coding/index.js';
import { currentRun } from '../learning/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { decideTexts } from '../wording/review.js';

export interface ReviewTarget {
  questionId: number;
  codeId: string;
}

/** A suggestion `s` as it is kept. */
export const suggestionColumns = selectFields('suggestion', 's');

/**
 * Decides one suggestion: accepted makes a mention, refused none; open takes the decision back. With `toSame` what is
 * open of the code for answers with the same words is decided with it; another code may be given in the same stroke.
 */
export async function decideSuggestion(
  em: EntityManager,
  maker: Maker,
  { questionId, codeId }: ReviewTarget,
  { responseId, state, toSame, passage, other }: Decide,
) {
  await inChange(em, async (tx) => {
    const name = await nameOf(tx, maker.studyId, codeId);
    const wanted = toSame ? await answersOfSameWords(tx, questionId, responseId) : [responseId];
    const found = await rows<Suggestion & { isOpen: boolean }>(
      tx,
      `select ${suggestionColumns}, exists (select 1 from open_suggestion o
         where o.code_id = s.code_id and o.response_id = s.response_id) as "isOpen"
       from suggestion s
       where s.question_id = :questionId and s.code_id = :codeId and s.response_id = any(:wanted::int[])
       order by s.response_id for update of s`,
      { questionId, codeId, wanted },
    );
    const stored = found.find((one) => one.responseId === responseId);
    if (!stored) throw problems.notFound('suggestion');
    if (passage) {
      const response = await findResponse(tx, maker.studyId, responseId);
      await refusePassage(tx, maker.studyId, response, passage);
    }
    const given =
      stored.state === 'accepted' ? await mentionsByAcceptance(tx, codeId, responseId) : [];
    const givenToOthers = [];
    for (const one of found)
      if (one !== stored && one.state === 'accepted' && stored.state === 'accepted')
        givenToOthers.push(...(await mentionsByAcceptance(tx, codeId, one.responseId)));
    const beside = other ? await giveOther(tx, maker, responseId, other) : null;
    // what was decided in bulk and is now read stands as a decision of its own
    const isNew = stored.state !== state || stored.bulk;
    const isMoved =
      state === 'accepted' &&
      passage !== undefined &&
      !given.some(({ start, end }) => start === passage.start && end === passage.end);
    // decided and given already, perhaps by the same request: it stays as it is
    if (!isNew && !isMoved && !beside?.mention) return;
    // settled by a person in the meantime: what they decided stands
    if (stored.state === 'open' && !stored.isOpen) throw problems.changedMeanwhile();
    const anew = isNew || isMoved;
    // those of the same words that stand as this one does are decided with it
    const isAlike = (one: Suggestion & { isOpen: boolean }) =>
      one.isOpen ||
      (stored.state !== 'open' && one.state === stored.state && one.bulk === stored.bulk);
    const suggestions = anew ? found.filter((one) => one === stored || isAlike(one)) : [];
    const how = { by: maker.accountId, bulk: false };
    const diff = decide(suggestions.map(asSuggestion), state, how);
    const accepted = (diff.mention?.added ?? []).map((mention) =>
      mention.responseId === responseId ? { ...mention, ...passage } : mention,
    );
    diff.mention = {
      updated: [],
      added: beside?.mention ? [...accepted, beside.mention] : accepted,
      removed: anew
        ? [
            ...given,
            ...givenToOthers.filter(({ responseId: id }) =>
              suggestions.some((one) => one.responseId === id),
            ),
          ]
        : [],
    };
    const decision = {
      accepted: decideTexts.accepting(name),
      refused: decideTexts.refusing(name),
      open: decideTexts.undoingDecision(name),
    }[state];
    const summary = [anew && decision, beside?.mention && decideTexts.coding(beside.name)]
      .filter(Boolean)
      .join(', ');
    await makeChange(tx, { ...maker, summary, diff });
  });
}

/** Another code of the codebook for an answer; no mention where the answer has it already. */
async function giveOther(
  em: EntityManager,
  maker: Maker,
  responseId: number,
  { id, codeId }: NonNullable<Decide['other']>,
): Promise<{ name: string; mention: Mention | null }> {
  const name = await nameOf(em, maker.studyId, codeId);
  const standing = await findMentions(em, 'm.code_id = :codeId and m.response_id = :responseId', {
    codeId,
    responseId,
  });
  const mention: Mention = {
    id,
    responseId,
    codeId,
    coderId: maker.accountId,
    start: null,
    end: null,
    origin: 'hand',
    createdAt: new Date().toISOString(),
    typical: false,
  };
  return { name, mention: standing.length > 0 ? null : mention };
}

/**
 * Accepts every open suggestion above a line, or refuses every one below it, as one change. Answers that
 * a person settled, or gave the code to, are never touched.
 *
 * @param within respondents whose answers alone are decided; null for everybody's
 * @returns how many were decided
 */
export async function decideByThreshold(
  em: EntityManager,
  {
    maker,
    target: { questionId, codeId },
    decision: { runId, threshold, side },
    within,
  }: { maker: Maker; target: ReviewTarget; decision: DecideByThreshold; within: number[] | null },
): Promise<number> {
  const { head, values, gave } = withinGroup(within);
  return inChange(em, async (tx) => {
    const name = await nameOf(tx, maker.studyId, codeId);
    if ((await currentRun(tx, questionId))?.id !== runId) throw problems.runReplaced();
    const open = await rows<Suggestion>(
      tx,
      `${head} select ${suggestionColumns} from open_suggestion s
       where s.question_id = :questionId and s.code_id = :codeId
         and s.probability ${side === 'above' ? '>=' : '<'} :threshold
         and ${gave('s.response_id')}
       order by s.response_id`,
      { ...values, questionId, codeId, threshold },
    );
    const state = side === 'above' ? 'accepted' : 'refused';
    const verb = side === 'above' ? 'accepting' : 'refusing';
    await makeChange(tx, {
      ...maker,
      summary: decideTexts.of(verb, open.length, name),
      diff: decide(
        open.map((one) => ({ ...one, decidedAt: asIso(one.decidedAt) })),
        state,
        { by: maker.accountId, bulk: true },
      ),
    });
    return open.length;
  });
}

/** The change that decides suggestions. */
export function decide(
  suggestions: Suggestion[],
  state: Decision,
  { by, bulk }: { by: number; bulk: boolean },
): ChangeDiff {
  const now = new Date().toISOString();
  const decided = state !== 'open';
  const mention = ({ codeId, responseId }: Suggestion): Mention => ({
    id: randomUUID(),
    responseId,
    codeId,
    coderId: by,
    start: null,
    end: null,
    origin: bulk ? 'bulk' : 'accepted',
    createdAt: now,
    typical: false,
  });
  return {
    suggestion: {
      added: [],
      removed: [],
      updated: suggestions.map((from) => ({
        from,
        to: {
          ...from,
          state,
          decidedBy: decided ? by : null,
          decidedAt: decided ? now : null,
          bulk: decided && bulk,
        },
      })),
    },
    mention: {
      added: state === 'accepted' ? suggestions.map(mention) : [],
      updated: [],
      removed: [],
    },
  };
}

export const mentionsByAcceptance = (em: EntityManager, codeId: string, responseId: number) =>
  findMentions(
    em,
    `m.code_id = :codeId and m.response_id = :responseId and m.origin in ('accepted', 'bulk')`,
    { codeId, responseId },
  );

async function answersOfSameWords(em: EntityManager, questionId: number, responseId: number) {
  const same = await rows<{ id: number }>(
    em,
    `select id from response
     where question_id = :questionId and same = (select same from response where id = :responseId)`,
    { questionId, responseId },
  );
  return same.map(({ id }) => id);
}

/** A stored suggestion as its record stands in a change. */
const asSuggestion = (stored: object): Suggestion => asRecord('suggestion', stored);

export const asIso = (date: string | null) => date && new Date(date).toISOString();

export async function nameOf(em: EntityManager, studyId: number, codeId: string): Promise<string> {
  const code = await em.findOne(CodeEntity, { id: codeId, studyId });
  if (!code) throw problems.notFound('code');
  return code.name;
}
