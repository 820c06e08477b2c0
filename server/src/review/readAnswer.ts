import { randomUUID } from 'node:crypto';
import type { Mention, ReadAnswer, Settlement, Suggestion } from '@yellow-thread/contract';
import { passageIn } from '@yellow-thread/core/coding';
import type { EntityManager } from '@mikro-orm/postgresql';
import { clearChanged, findResponse, refusePassage, sameAs } from '../coding/index.js';
import {
  CodeEntity,
  findMentions,
  findSettlements,
  inChange,
  makeChange,
  rows,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { asIso, suggestionColumns } from './decide.js';
import { readAnswerTexts } from '../wording/review.js';

type Accepted = ReadAnswer['accept'][number];

/**
 * Settles an answer as somebody read it with its suggestions in view: those that were left standing become mentions, in
 * the same change. Answers of the same words are settled alike where that is asked for.
 *
 * @throws Problem not_found, no_answer_to_code, sample_is_blind for an answer that is drawn for coding by hand
 */
export async function settleReading(
  em: EntityManager,
  maker: Maker,
  responseId: number,
  { accept, toSame }: ReadAnswer,
): Promise<void> {
  await inChange(em, async (tx) => {
    const response = await findResponse(tx, maker.studyId, responseId);
    if (response.noAnswer) throw problems.noAnswerToCode();
    for (const one of accept) await refusePassage(tx, maker.studyId, response, one);
    await refuseUnknownCodes(tx, maker.studyId, accept);
    const others = toSame ? await sameAs(tx, response) : [];
    const drawn = await inSample(
      tx,
      [response, ...others].map(({ id }) => id),
    );
    // what is drawn for coding by hand is read by itself, without the models' word
    if (drawn.has(responseId)) throw problems.sampleIsBlind();
    const answers = [response, ...others.filter(({ id }) => !drawn.has(id))];
    const ids = answers.map(({ id }) => id);
    const settled = new Set(
      (await findSettlements(tx, 's.response_id = any(:ids::int[])', { ids })).map(
        (one) => one.responseId,
      ),
    );
    const open = answers.filter(({ id }) => !settled.has(id));
    const at = new Date().toISOString();
    const mentions = await mentionsFor(tx, maker, { response, open, accept, at });
    const decided = await suggestionsFor(
      tx,
      accept,
      open.map(({ id }) => id),
    );
    await clearChanged(tx, ids);
    await makeChange(tx, {
      ...maker,
      summary: summaryOf(open.length, accept.length),
      diff: {
        suggestion: {
          added: [],
          removed: [],
          updated: decided.map((from) => ({
            from,
            to: {
              ...from,
              state: 'accepted' as const,
              decidedBy: maker.accountId,
              decidedAt: at,
              bulk: false,
            },
          })),
        },
        mention: { added: mentions, updated: [], removed: [] },
        settlement: {
          added: open.map(({ id }): Settlement => ({
            responseId: id,
            coderId: maker.accountId,
            settledAt: at,
            assisted: true,
          })),
          updated: [],
          removed: [],
        },
      },
    });
  });
}

function summaryOf(answers: number, accepted: number): string {
  return accepted === 0
    ? readAnswerTexts.settling(answers)
    : readAnswerTexts.settlingWith(answers, accepted);
}

async function refuseUnknownCodes(
  em: EntityManager,
  studyId: number,
  accept: readonly Accepted[],
): Promise<void> {
  const ids = [...new Set(accept.map(({ codeId }) => codeId))];
  if ((await em.count(CodeEntity, { studyId, id: { $in: ids } })) < ids.length)
    throw problems.notFound('code');
}

async function inSample(em: EntityManager, ids: readonly number[]): Promise<Set<number>> {
  const drawn = await rows<{ id: number }>(
    em,
    'select distinct response_id as id from sample_member where response_id = any(:ids::int[])',
    { ids },
  );
  return new Set(drawn.map(({ id }) => id));
}

interface Reading {
  /** The answer that was read, and those that are settled with it. */
  response: { text: string };
  open: readonly { id: number; text: string }[];
  accept: readonly Accepted[];
  at: string;
}

/** Mentions of what was accepted, but where an answer has the code already. */
async function mentionsFor(
  em: EntityManager,
  { accountId }: Maker,
  { response, open, accept, at }: Reading,
): Promise<Mention[]> {
  const standing = await findMentions(
    em,
    'm.response_id = any(:responseIds::int[]) and m.code_id = any(:codeIds::uuid[])',
    { responseIds: open.map(({ id }) => id), codeIds: accept.map(({ codeId }) => codeId) },
  );
  const has = new Set(standing.map(({ responseId, codeId }) => `${responseId} ${codeId}`));
  return open.flatMap(({ id, text }) =>
    accept
      .filter(({ codeId }) => !has.has(`${id} ${codeId}`))
      .map(({ codeId, start, end }): Mention => ({
        id: randomUUID(),
        responseId: id,
        codeId,
        coderId: accountId,
        ...placeIn(response.text, text, start, end),
        origin: 'accepted',
        createdAt: at,
        typical: false,
      })),
  );
}

const whole = { start: null, end: null };

/** Where a passage of one answer stands in another one of the same words. */
function placeIn(text: string, other: string, start: number | null, end: number | null) {
  if (start === null || end === null) return whole;
  return text === other ? { start, end } : (passageIn(text, { start, end }, other) ?? whole);
}

/** The suggestions of what was accepted, as they stand. */
async function suggestionsFor(
  em: EntityManager,
  accept: readonly Accepted[],
  ids: readonly number[],
): Promise<Suggestion[]> {
  const found = await rows<Suggestion>(
    em,
    `select ${suggestionColumns} from suggestion s
     where s.response_id = any(:ids::int[]) and s.code_id = any(:accept::uuid[]) and s.state = 'open'
     order by s.response_id, s.code_id for update of s`,
    { ids, accept: accept.map(({ codeId }) => codeId) },
  );
  return found.map((one) => ({ ...one, decidedAt: asIso(one.decidedAt) }));
}
