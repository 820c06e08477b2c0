import type { Mention, MentionCreate, Settlement } from '@yellow-thread/contract';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { draftCode } from '../codebook/index.js';
import { CodeEntity, makeChange, rows, StudyEntity, type ChangeDiff } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../problems.js';

/**
 * Applies a code to a response, at a passage or to the whole, making the code in the same stroke where
 * asked. A request that comes twice is carried out once.
 */
export async function addMention(em: EntityManager, maker: Maker, create: MentionCreate) {
  const { newCode, ...place } = create;
  return em.transactional(async (tx) => {
    const response = await findResponse(tx, maker.studyId, create.responseId);
    if (response.noAnswer) throw problems.noAnswerToCode();
    if (create.end !== null && create.end > response.text.length) throw problems.passageOutside();
    const { asides } = await tx.findOneOrFail(StudyEntity, maker.studyId);
    const said = blankAsides(response.text, asides);
    if (create.start !== null && said.slice(create.start, create.end!).trim() === '')
      throw problems.asideNotCoded();
    if ((await findMention(tx, maker.studyId, create.id)) !== null) return;
    const diff: ChangeDiff = {};
    const stored = await tx.findOne(CodeEntity, { id: create.codeId, studyId: maker.studyId });
    let name = stored?.name;
    if (!stored && newCode?.id === create.codeId) {
      diff.code = {
        added: [await draftCode(tx, maker.studyId, newCode)],
        updated: [],
        removed: [],
      };
      name = newCode.name;
    }
    if (name === undefined) throw problems.notFound('code');
    const mention: Mention = {
      ...place,
      coderId: maker.accountId,
      origin: 'hand',
      createdAt: new Date().toISOString(),
    };
    diff.mention = { added: [mention], updated: [], removed: [] };
    await makeChange(tx, { ...maker, summary: `coding “${name}”`, diff });
  });
}

/** Takes a mention away; one that is gone already stays so. */
export async function removeMention(em: EntityManager, maker: Maker, id: string) {
  await em.transactional(async (tx) => {
    const mention = await findMention(tx, maker.studyId, id);
    if (!mention) return;
    const code = await tx.findOneOrFail(CodeEntity, mention.codeId);
    await makeChange(tx, {
      ...maker,
      summary: `taking “${code.name}” away`,
      diff: { mention: { added: [], updated: [], removed: [mention] } },
    });
  });
}

/** Decides that a response is settled by this person, or open again for everybody. */
export async function settleResponse(
  em: EntityManager,
  maker: Maker,
  responseId: number,
  settled: boolean,
) {
  await em.transactional(async (tx) => {
    const response = await findResponse(tx, maker.studyId, responseId);
    if (response.noAnswer) throw problems.noAnswerToCode();
    const standing = await rows<Settlement & { settledAt: Date | string }>(
      tx,
      `select response_id as "responseId", coder_id as "coderId", settled_at as "settledAt"
       from settlement where response_id = ?`,
      [responseId],
    );
    const records = standing.map((one) => ({
      ...one,
      settledAt: new Date(one.settledAt).toISOString(),
    }));
    // whoever settles it has looked at it as it now is
    if (settled)
      await rows(
        tx,
        'update response set changed_at = null where id = ? and changed_at is not null',
        [responseId],
      );
    const mine = records.some((one) => one.coderId === maker.accountId);
    if (settled ? mine : records.length === 0) return;
    const fresh: Settlement = {
      responseId,
      coderId: maker.accountId,
      settledAt: new Date().toISOString(),
    };
    await makeChange(tx, {
      ...maker,
      summary: settled ? 'settling an answer' : 'opening an answer',
      diff: {
        settlement: {
          added: settled ? [fresh] : [],
          updated: [],
          removed: settled ? [] : records,
        },
      },
    });
  });
}

export async function findResponse(em: EntityManager, studyId: number, id: number) {
  const [response] = await rows<{ text: string; noAnswer: boolean; questionId: number }>(
    em,
    `select r.text, r.no_answer as "noAnswer", r.question_id as "questionId"
     from response r join question q on q.id = r.question_id
     where r.id = ? and q.study_id = ?`,
    [id, studyId],
  );
  if (!response) throw problems.notFound('answer');
  return response;
}

async function findMention(
  em: EntityManager,
  studyId: number,
  id: string,
): Promise<Mention | null> {
  const [mention] = await rows<Mention>(
    em,
    `select m.id, m.response_id as "responseId", m.code_id as "codeId", m.coder_id as "coderId",
       m.start, m."end", m.origin, m.created_at as "createdAt"
     from mention m join code c on c.id = m.code_id where m.id = ? and c.study_id = ?`,
    [id, studyId],
  );
  return mention ? { ...mention, createdAt: new Date(mention.createdAt).toISOString() } : null;
}
