import type { BackgroundValue, RespondentQuery, RespondentRow } from '@yellow-thread/contract';
import { forEachIn } from '@yellow-thread/core/groups';
import { isStoredAs } from '@yellow-thread/core/sheet';
import { foldForSearch } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  foldedInSql,
  makeChange,
  rows,
  VariableEntity,
  withinGroup,
  type RespondentRecord,
  type SqlValue,
  type SqlValues,
} from '../database/index.js';
import {
  MISSING,
  readByRule,
  readColumns,
  readLabels,
  readPeople,
  readVariable,
} from '../groups/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { addCategories } from './categories.js';
import { respondentsTexts } from '../wording/study.js';

/** Ids of the respondents that are asked for, in the order asked for. */
export async function listRespondents(
  em: EntityManager,
  studyId: number,
  { sort, descending, words }: RespondentQuery,
  within: number[] | null,
): Promise<number[]> {
  const way = descending ? 'desc' : 'asc';
  const wanted = foldForSearch(words);
  const holding = wanted.replaceAll(/[\\%_]/g, '\\$&');
  const { head, holds, values: its } = withinGroup(within);
  const values: Record<string, SqlValue> = { ...its, studyId };
  let where = `r.study_id = :studyId and ${holds('r.id')}`;
  if (holding) {
    where += ` and (${foldedInSql('r.external_id')} like :like or r.id = any(:called::int[]) or exists (
      select 1 from jsonb_each_text(r.background) b where ${foldedInSql('b.value')} like :like))`;
    values['like'] = `%${holding}%`;
    values['called'] = await calledLike(em, studyId, wanted);
  }
  let from = 'respondent r';
  let order = `r.id ${way}`;
  if (sort === 'id') order = `r.external_id ${way}, r.id`;
  else if (typeof sort === 'number') {
    const variable = await readVariable(em, studyId, sort);
    if ('byRule' in variable) {
      const people = await readPeople(em, studyId);
      const columns = await readColumns(em, { people, studyId, variableId: sort });
      const rank = new Map<number, number>();
      columns.forEach(({ key, members }, place) => {
        // those without a value stand last either way
        const at = descending && key !== MISSING ? -place : place;
        forEachIn(members, (i) => rank.set(people.ids[i]!, at));
      });
      return (await find(em, { head, from, where, order: 'r.id', values })).sort(
        (x, y) => (rank.get(x) ?? 0) - (rank.get(y) ?? 0),
      );
    }
    // bands of a variable rise with it
    const id = variable.stored.valueId;
    from += ` left join category c on c.variable_id = ${id} and c.value = r.background->>'${id}'`;
    const value = `nullif(r.background->'${id}', 'null'::jsonb)`;
    order = `c.position ${way} nulls last, ${value} ${way} nulls last, r.id`;
  }
  return find(em, { head, from, where, order, values });
}

async function find(
  em: EntityManager,
  {
    head,
    from,
    where,
    order,
    values,
  }: { head: string; from: string; where: string; order: string; values: SqlValues },
): Promise<number[]> {
  const found = await rows<{ ids: number[] | null }>(
    em,
    `${head} select json_agg(id) as ids from (select r.id from ${from} where ${where} order by ${order}) r`,
    values,
  );
  return found[0]?.ids ?? [];
}

/** Ids of those who are in a category that is computed by rules and whose name holds some words. */
async function calledLike(em: EntityManager, studyId: number, words: string): Promise<number[]> {
  const people = await readPeople(em, studyId);
  const ids: number[] = [];
  for (const variableId of (await readByRule(em, studyId)).keys())
    for (const { key, label, members } of await readColumns(em, { people, studyId, variableId }))
      if (key !== MISSING && foldForSearch(label).includes(words))
        forEachIn(members, (i) => ids.push(people.ids[i]!));
  return ids;
}

/** Respondents with their background, what is computed by rules among it. */
export async function readRespondents(
  em: EntityManager,
  studyId: number,
  ids: readonly number[],
): Promise<RespondentRow[]> {
  const respondents = await rows<RespondentRow>(
    em,
    `select r.id, r.external_id as "externalId", r.weight, r.background
     from unnest(:ids::int[]) with ordinality as wanted (id, place)
     join respondent r on r.id = wanted.id and r.study_id = :studyId order by wanted.place`,
    { ids, studyId },
  );
  for (const variableId of (await readByRule(em, studyId)).keys()) {
    const { labelOf } = await readLabels(em, studyId, variableId);
    for (const { id, background } of respondents) background[variableId] = labelOf(id);
  }
  return respondents;
}

/** Writes one background value of one respondent, as a change that can be undone. */
export async function changeBackground(
  em: EntityManager,
  {
    maker,
    respondentId,
    variableId,
    value,
  }: { maker: Maker; respondentId: number; variableId: number; value: BackgroundValue | null },
): Promise<void> {
  await em.transactional(async (tx) => {
    const variable = await tx.findOne(VariableEntity, { id: variableId, studyId: maker.studyId });
    if (!variable) throw problems.notFound('variable');
    if (variable.derived) throw problems.valueWorkedOut(variable.name);
    if (value !== null && !isStoredAs(value, variable.kind))
      throw problems.valueDoesNotFit(variable.name, variable.kind);
    const [from] = await rows<RespondentRecord & { externalId: string }>(
      tx,
      `select id, study_id as "studyId", background, external_id as "externalId" from respondent
       where id = :respondentId and study_id = :studyId for no key update`,
      { respondentId, studyId: maker.studyId },
    );
    if (!from) throw problems.notFound('respondent');
    const { externalId, ...record } = from;
    if ((record.background[String(variableId)] ?? null) === value) return;
    const to = { ...record, background: { ...record.background, [String(variableId)]: value } };
    await makeChange(tx, {
      ...maker,
      summary: respondentsTexts.changing(variable.name, externalId),
      diff: { respondent: { added: [], removed: [], updated: [{ from: record, to }] } },
    });
    if (variable.kind === 'category' && value !== null)
      await addCategories(tx, [{ variableId, value: String(value), label: String(value) }]);
  });
}
