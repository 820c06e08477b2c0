import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type {
  Mention,
  MentionCreate,
  MentionEdit,
  Settle,
  Settlement,
} from '@yellow-thread/contract';
import { passageIn } from '@yellow-thread/core/coding';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { draftCode, draftTheme, findCode } from '../codebook/index.js';
import {
  type ChangeDiff,
  CodeEntity,
  findMentions,
  findSettlements,
  inChange,
  makeChange,
  StudyEntity,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { clearChanged, findResponse, sameAs, type FoundResponse } from './responses.js';
import { mentionsTexts } from '../wording/coding.js';

/**
 * Applies a code to a response, at a passage or to the whole, making the code in the same stroke where
 * asked, and to all answers with the same words where asked. A request that comes twice is carried out once.
 */
export async function addMention(em: EntityManager, maker: Maker, create: MentionCreate) {
  const { id, responseId, codeId, start, end, toSame } = create;
  const place = { id, responseId, codeId, start, end };
  return inChange(em, async (tx) => {
    const response = await findResponse(tx, maker.studyId, create.responseId);
    await refusePassage(tx, maker.studyId, response, place);
    if ((await findMention(tx, maker.studyId, create.id)) !== null) return;
    const diff: ChangeDiff = {};
    const name = await nameOrDraft(tx, maker, create, diff);
    const mention: Mention = {
      ...place,
      coderId: maker.accountId,
      origin: 'hand',
      createdAt: new Date().toISOString(),
      typical: false,
    };
    const others = toSame ? await sameAs(tx, response) : [];
    const already = new Set(
      (
        await findMentions(tx, 'm.code_id = :codeId and m.response_id = any(:responseIds::int[])', {
          codeId: create.codeId,
          responseIds: others.map(({ id }) => id),
        })
      ).map(({ responseId }) => responseId),
    );
    diff.mention = {
      added: [
        mention,
        ...others
          .filter(({ id }) => !already.has(id))
          .map(({ id, text }) => ({
            ...mention,
            ...placeIn(response.text, place, text),
            id: randomUUID(),
            responseId: id,
          })),
      ],
      updated: [],
      removed: [],
    };
    const count = diff.mention.added.length;
    await makeChange(tx, {
      ...maker,
      summary: mentionsTexts.coding(name, count),
      diff,
    });
  });
}

/** The name of the code that is applied; one that is made in the same stroke is added to the change. */
export async function nameOrDraft(
  em: EntityManager,
  { studyId }: Maker,
  { codeId, newCode, newTheme }: Pick<MentionCreate, 'codeId' | 'newCode' | 'newTheme'>,
  diff: ChangeDiff,
): Promise<string> {
  const stored = await em.findOne(CodeEntity, { id: codeId, studyId });
  if (stored) return stored.name;
  if (newCode?.id !== codeId) throw problems.notFound('code');
  if (newTheme && newCode.themeId === newTheme.id)
    diff.theme = { added: [await draftTheme(em, studyId, newTheme)], updated: [], removed: [] };
  diff.code = { added: [await draftCode(em, studyId, newCode)], updated: [], removed: [] };
  return newCode.name;
}

interface Passage {
  start: number | null;
  end: number | null;
}

/** @throws Problem when there is nothing to be coded there */
export async function refusePassage(
  em: EntityManager,
  studyId: number,
  response: FoundResponse,
  { start, end }: Passage,
) {
  if (response.noAnswer) throw problems.noAnswerToCode();
  if (start === null || end === null) return;
  if (end > response.text.length) throw problems.passageOutside();
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  if (blankAsides(response.text, asides).slice(start, end).trim() === '')
    throw problems.asideNotCoded();
}

/** Where a passage of one answer stands in another one of the same words. */
function placeIn(text: string, { start, end }: Passage, other: string): Passage {
  const whole = { start: null, end: null };
  return start === null || end === null ? whole : (passageIn(text, { start, end }, other) ?? whole);
}

/** Takes a mention away, where asked from all answers with the same words; one that is gone already stays so. */
export async function removeMention(em: EntityManager, maker: Maker, id: string, toSame: boolean) {
  await inChange(em, async (tx) => {
    const mention = await findMention(tx, maker.studyId, id);
    if (!mention) return;
    const code = await findCode(tx, maker.studyId, mention.codeId);
    const removed = [mention];
    if (toSame) {
      const response = await findResponse(tx, maker.studyId, mention.responseId);
      const texts = new Map((await sameAs(tx, response)).map(({ id, text }) => [id, text]));
      const others = await findMentions(
        tx,
        'm.code_id = :codeId and m.response_id = any(:responseIds::int[])',
        { codeId: mention.codeId, responseIds: [...texts.keys()] },
      );
      removed.push(
        ...others.filter((other) => {
          const place = placeIn(response.text, mention, texts.get(other.responseId)!);
          return other.start === place.start && other.end === place.end;
        }),
      );
    }
    await makeChange(tx, {
      ...maker,
      summary: mentionsTexts.takingAway(code.name, removed.length),
      diff: { mention: { added: [], updated: [], removed } },
    });
  });
}

/** Gives a mention another code, other characters, or makes it an example of its code. */
export async function editMention(em: EntityManager, maker: Maker, id: string, edit: MentionEdit) {
  await inChange(em, async (tx) => {
    const from = await findMention(tx, maker.studyId, id);
    if (!from) throw problems.notFound('mention');
    const code = await findCode(tx, maker.studyId, edit.codeId ?? from.codeId);
    const { codeId = from.codeId, typical = from.typical, passage } = edit;
    const place = passage === undefined ? from : (passage ?? { start: null, end: null });
    const to: Mention = { ...from, codeId, typical, start: place.start, end: place.end };
    // sent twice: the first time did it
    if (isDeepStrictEqual(from, to)) return;
    if (passage)
      await refusePassage(
        tx,
        maker.studyId,
        await findResponse(tx, maker.studyId, from.responseId),
        passage,
      );
    const was = await findCode(tx, maker.studyId, from.codeId);
    await makeChange(tx, {
      ...maker,
      summary:
        edit.codeId !== undefined
          ? mentionsTexts.instead(code.name, was.name)
          : passage !== undefined
            ? mentionsTexts.moving(code.name)
            : typical
              ? mentionsTexts.example(code.name)
              : mentionsTexts.withoutExample(code.name),
      diff: { mention: { added: [], updated: [{ from, to }], removed: [] } },
    });
  });
}

/**
 * Decides that a response is settled by this person, or open again for everybody; where asked, all answers
 * of the same words with it.
 */
export async function settleResponse(
  em: EntityManager,
  maker: Maker,
  responseId: number,
  { settled, toSame, assisted }: Settle,
) {
  await inChange(em, async (tx) => {
    const response = await findResponse(tx, maker.studyId, responseId);
    if (response.noAnswer) throw problems.noAnswerToCode();
    const others = toSame ? await sameAs(tx, response) : [];
    const ids = [responseId, ...others.map(({ id }) => id)];
    const standing = await findSettlements(tx, 's.response_id = any(:ids::int[])', { ids });
    // who settles it has seen it as it now is
    if (settled) await clearChanged(tx, ids);
    const mine = new Set(
      standing.filter((one) => one.coderId === maker.accountId).map((one) => one.responseId),
    );
    const settledAt = new Date().toISOString();
    const fresh = ids
      .filter((id) => !mine.has(id))
      .map((id): Settlement => ({ responseId: id, coderId: maker.accountId, settledAt, assisted }));
    const count = settled ? fresh.length : new Set(standing.map((one) => one.responseId)).size;
    await makeChange(tx, {
      ...maker,
      summary: `${settled ? 'settling' : 'opening'} ${count > 1 ? `${count} answers` : mentionsTexts.answer}`,
      diff: {
        settlement: {
          added: settled ? fresh : [],
          updated: [],
          removed: settled ? [] : standing,
        },
      },
    });
  });
}

async function findMention(em: EntityManager, studyId: number, id: string) {
  const [mention] = await findMentions(em, 'm.id = :id and c.study_id = :studyId', { id, studyId });
  return mention ?? null;
}
