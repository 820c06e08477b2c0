import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';

/** Passages that were pinned as examples of a code, by its id, in the order in which they were coded. */
export async function readExamples(
  em: EntityManager,
  studyId: number,
): Promise<Map<string, string[]>> {
  const typical = await rows<{
    codeId: string;
    text: string;
    start: number | null;
    end: number | null;
  }>(
    em,
    `select m.code_id as "codeId", r.text, m.start, m."end"
     from mention m join code c on c.id = m.code_id and c.study_id = :studyId
     join response r on r.id = m.response_id where m.typical order by m.created_at`,
    { studyId },
  );
  const examples = new Map<string, string[]>();
  for (const { codeId, text, start, end } of typical) {
    // passages count as JavaScript does, where some characters are two
    const passage = start === null || end === null ? text : text.slice(start, end);
    examples.set(codeId, [...(examples.get(codeId) ?? []), passage]);
  }
  return examples;
}
