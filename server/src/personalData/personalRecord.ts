import type { EntityManager } from '@mikro-orm/postgresql';
import { behindTheirParents, readForeignKeys, row, rows, StudyEntity } from '../database/index.js';
import { problems } from '../wording/problems.js';
import { theirChanges } from './theirChanges.js';
import { BIN_OF_RESPONDENT, findTraces } from './traces.js';

/**
 * All that is kept of one respondent: who they are and what they said in words of the study, and every row of the
 * database that belongs to them, found by its foreign keys, so that no table is forgotten.
 *
 * @throws Problem not_found
 */
export async function readPersonalRecord(
  em: EntityManager,
  studyId: number,
  externalId: string,
): Promise<object> {
  const traces = await findTraces(em, studyId, externalId);
  const { respondentIds, responseIds } = traces;
  if (respondentIds.length === 0) throw problems.notFound('respondent');
  const { name, purpose } = await em.findOneOrFail(StudyEntity, studyId);
  const values = { studyId, respondentIds, responseIds };
  const background = await rows<{ variable: string; value: unknown }>(
    em,
    `select v.name as variable, b.value from respondent p
     cross join lateral jsonb_each(p.background) b join variable v on v.id = b.key::int
     where p.id = any(:respondentIds::int[]) order by v.position, v.id`,
    values,
  );
  const answers = await rows(
    em,
    `select q.wording as question, r.text as answer,
       (select coalesce(jsonb_agg(jsonb_build_object('code', c.name, 'coder', a.name, 'at', m.created_at,
           'passage', substr(r.text, m.start + 1, m."end" - m.start)) order by m.created_at, m.id), '[]')
         from mention m join code c on c.id = m.code_id join account a on a.id = m.coder_id
         where m.response_id = r.id) as codes,
       (select coalesce(jsonb_agg(jsonb_build_object('text', n.text, 'author', a.name, 'at', n.created_at)
           order by n.created_at, n.id), '[]')
         from note n join account a on a.id = n.author_id where n.response_id = r.id) as notes
     from response r join question q on q.id = r.question_id
     where r.id = any(:responseIds::int[]) order by q.position, r.id`,
    values,
  );
  const history: object[] = [];
  for await (const { summary, by, at } of theirChanges(em, studyId, traces))
    history.push({ summary, by, at });
  return {
    study: { name, purpose },
    respondent: externalId,
    background: Object.fromEntries(background.map(({ variable, value }) => [variable, value])),
    answers,
    history,
    rows: await readRows(em, values),
  };
}

/** Every row that belongs to somebody, by table; those that an undone import could bring back among them. */
async function readRows(
  em: EntityManager,
  values: { studyId: number; respondentIds: number[]; responseIds: number[] },
): Promise<Record<string, unknown[]>> {
  const keys = (await readForeignKeys(em)).filter(({ onDelete }) => onDelete === 'cascade');
  const found: Record<string, unknown[]> = {};
  for (const table of behindTheirParents(['respondent'], keys)) {
    const own = keys.filter(
      ({ child, parent }) => child === table && (parent === 'respondent' || parent === 'response'),
    );
    const conditions = own.map(
      ({ column, parent }) =>
        `t.${column} = any(:${parent === 'respondent' ? 'respondentIds' : 'responseIds'}::int[])`,
    );
    if (table === 'respondent') conditions.push('t.id = any(:respondentIds::int[])');
    if (conditions.length === 0) continue;
    const { all } = await row<{ all: unknown[] }>(
      em,
      `select coalesce(jsonb_agg(to_jsonb(t)), '[]') as all from ${table} t where ${conditions.join(' or ')}`,
      values,
    );
    if (all.length > 0) found[table] = all;
  }
  const { all } = await row<{ all: unknown[] }>(
    em,
    `select coalesce(jsonb_agg(b.row), '[]') as all from bin_row b where ${BIN_OF_RESPONDENT}`,
    values,
  );
  return all.length > 0 ? { ...found, deleted: all } : found;
}
