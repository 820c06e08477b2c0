import type { MentionOfCode } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';
import { findCode } from './records.js';

const MOST = 5000;

/** The mentions of a code with the answers that they stand in, pinned examples first. */
export async function readMentionsOfCode(em: EntityManager, studyId: number, codeId: string) {
  await findCode(em, studyId, codeId);
  const mentions = await rows<MentionOfCode>(
    em,
    `select m.id, m.code_id as "codeId", m.response_id as "responseId", r.question_id as "questionId",
       p.external_id as "externalId", r.text, m.start, m."end", m.typical, m.origin
     from mention m join response r on r.id = m.response_id
     join respondent p on p.id = r.respondent_id
     where m.code_id = :codeId order by m.typical desc, r.question_id, r.id, m.start nulls first, m.id
     limit ${MOST + 1}`,
    { codeId },
  );
  return { mentions: mentions.slice(0, MOST), more: mentions.length > MOST };
}
