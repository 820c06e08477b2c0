import type { BackgroundValue, RespondentQuery, RespondentRow } from '@yellow-thread/contract';
import { isStoredAs } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  makeChange,
  rows,
  VariableEntity,
  withinGroup,
  type RespondentRecord,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../problems.js';
import { addCategories } from './variables.js';

/** Ids of the respondents that are asked for, in the order asked for. */
export async function listRespondents(
  em: EntityManager,
  studyId: number,
  { sort, descending, words }: RespondentQuery,
  within: number[] | null,
): Promise<number[]> {
  const way = descending ? 'desc' : 'asc';
  const holding = words.trim().replaceAll(/[\\%_]/g, '\\$&');
  const { head, holds, values: its } = withinGroup(within);
  const values: (string | number | readonly number[])[] = [...its, studyId];
  let where = `r.study_id = ? and ${holds('r.id')}`;
  if (holding) {
    where += ` and (r.external_id ilike ? or exists (
      select 1 from jsonb_each_text(r.background) b where b.value ilike ?))`;
    values.push(`%${holding}%`, `%${holding}%`);
  }
  let from = 'respondent r';
  let order = `r.id ${way}`;
  if (sort === 'id') order = `r.external_id ${way}, r.id`;
  else if (typeof sort === 'number') {
    const variable = await em.findOne(VariableEntity, { id: sort, studyId });
    if (!variable) throw problems.notFound('variable');
    // what is worked out from a variable rises with it
    const id = Number(variable.derived?.from ?? sort);
    from += ` left join category c on c.variable_id = ${id} and c.value = r.background->>'${id}'`;
    const value = `nullif(r.background->'${id}', 'null'::jsonb)`;
    order = `c.position ${way} nulls last, ${value} ${way} nulls last, r.id`;
  }
  const found = await rows<{ ids: number[] | null }>(
    em,
    `${head} select json_agg(id) as ids from (select r.id from ${from} where ${where} order by ${order}) r`,
    values,
  );
  return found[0]?.ids ?? [];
}

export const readRespondents = (
  em: EntityManager,
  studyId: number,
  ids: readonly number[],
): Promise<RespondentRow[]> =>
  rows(
    em,
    `select r.id, r.external_id as "externalId", r.weight, r.background
     from unnest(?::int[]) with ordinality as wanted (id, place)
     join respondent r on r.id = wanted.id and r.study_id = ? order by wanted.place`,
    [ids, studyId],
  );

/** Writes one background value of one respondent, as a change that can be undone. */
export async function changeBackground(
  em: EntityManager,
  maker: Maker,
  respondentId: number,
  variableId: number,
  value: BackgroundValue | null,
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
       where id = ? and study_id = ? for update`,
      [respondentId, maker.studyId],
    );
    if (!from) throw problems.notFound('respondent');
    const { externalId, ...record } = from;
    if ((record.background[String(variableId)] ?? null) === value) return;
    const to = { ...record, background: { ...record.background, [String(variableId)]: value } };
    await makeChange(tx, {
      ...maker,
      summary: `changing “${variable.name}” of ${externalId}`,
      diff: { respondent: { added: [], removed: [], updated: [{ from: record, to }] } },
    });
    if (variable.kind === 'category' && value !== null)
      await addCategories(tx, [{ variableId, value: String(value), label: String(value) }]);
  });
}
