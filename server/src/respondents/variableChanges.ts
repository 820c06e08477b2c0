import type { Band, ByRule, Derived, VariableDetail } from '@yellow-thread/contract';
import { countOf, labelsByRule } from '@yellow-thread/core/groups';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  makeChange,
  row,
  rows,
  VariableEntity,
  type CategoryRecord,
  type VariableRecord,
} from '../database/index.js';
import { readColumns, readPeople, refuseTooDeep } from '../groups/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { variableChangesTexts } from '../wording/study.js';

async function findVariable(
  em: EntityManager,
  studyId: number,
  id: number,
): Promise<VariableRecord> {
  const variable = await em.findOne(VariableEntity, { id, studyId });
  if (!variable) throw problems.notFound('variable');
  const { position, name, kind, derived } = variable;
  return { id, studyId, position, name, kind, derived: derived ?? null };
}

/** A variable with what its values are called and how many respondents have each. */
export async function describeVariable(
  em: EntityManager,
  studyId: number,
  id: number,
): Promise<VariableDetail> {
  const { name, kind, derived } = await findVariable(em, studyId, id);
  if (derived && 'rules' in derived) {
    const people = await readPeople(em, studyId);
    const counts = new Map(
      (await readColumns(em, { people, studyId, variableId: id })).map(({ key, members }) => [
        key,
        countOf(members),
      ]),
    );
    const categories = labelsByRule(derived).map((label) => ({
      value: label,
      label,
      count: counts.get(`=${label}`) ?? 0,
    }));
    const stated = categories.reduce((sum, { count }) => sum + count, 0);
    return { id, name, kind, derived, categories, stated, lowest: null, highest: null };
  }
  const key = String(derived?.from ?? id);
  const range = await row<Pick<VariableDetail, 'stated' | 'lowest' | 'highest'>>(
    em,
    `select count(value)::int as stated, min(value)::text as lowest, max(value)::text as highest
     from (select ${kind === 'number' ? `(background->>:key)::numeric` : `background->>:key`} as value
       from respondent where study_id = :studyId) v`,
    { key, studyId },
  );
  const categories = derived
    ? []
    : await rows<VariableDetail['categories'][number]>(
        em,
        `select c.value, c.label, coalesce(n.count, 0)::int as count from category c
         left join (select background->>:key as value, count(*) from respondent where study_id = :studyId
           group by 1) n on n.value = c.value
         where c.variable_id = :id order by c.position, c.value`,
        { key, studyId, id },
      );
  return { id, name, kind, derived, categories, ...range };
}

/** Calls a variable something else. */
export async function renameVariable(em: EntityManager, maker: Maker, id: number, name: string) {
  await em.transactional(async (tx) => {
    const from = await findVariable(tx, maker.studyId, id);
    if (from.name === name) return;
    const taken = await tx.count(VariableEntity, { studyId: maker.studyId, name });
    if (taken > 0) throw problems.nameTaken('variable', name);
    await makeChange(tx, {
      ...maker,
      summary: variableChangesTexts.renaming(from.name),
      diff: { variable: { added: [], removed: [], updated: [{ from, to: { ...from, name } }] } },
    });
  });
}

/**
 * Orders the categories of a variable and says what each is called; those that are called the same count as
 * one. What is stored of respondents stays as it was written.
 *
 * @throws Problem changed_meanwhile where one is listed that is deleted, or listed twice
 */
export async function changeCategories(
  em: EntityManager,
  maker: Maker,
  id: number,
  wanted: readonly { value: string; label: string }[],
) {
  await em.transactional(async (tx) => {
    const variable = await findVariable(tx, maker.studyId, id);
    const known = await rows<CategoryRecord>(
      tx,
      `select variable_id as "variableId", value, label, position from category
       where variable_id = :id order by position, value for update`,
      { id },
    );
    const values = new Set(known.map(({ value }) => value));
    if (wanted.some(({ value }) => !values.delete(value))) throw problems.changedMeanwhile();
    // what came in meanwhile stays as it is, behind the others
    const others = known.filter(({ value }) => values.has(value));
    const places = new Map(
      [...wanted, ...others].map(({ value, label }, position) => [value, { label, position }]),
    );
    const updated = known.flatMap((from) => {
      const to = { ...from, ...places.get(from.value)! };
      return to.label === from.label && to.position === from.position ? [] : [{ from, to }];
    });
    await makeChange(tx, {
      ...maker,
      summary: variableChangesTexts.changingCategories(variable.name),
      diff: { category: { added: [], removed: [], updated } },
    });
  });
}

/** Makes a variable of categories that people are assigned to by rules. @returns its id @throws Problem rule_too_deep, name_taken */
export const addByRule = (
  em: EntityManager,
  maker: Maker,
  name: string,
  by: ByRule,
): Promise<number> => {
  for (const { rule } of by.rules) refuseTooDeep(rule);
  return em.transactional((tx) =>
    addDerived(tx, { maker, summary: variableChangesTexts.newVariable(name), name, derived: by }),
  );
};

async function addDerived(
  tx: EntityManager,
  {
    maker,
    summary,
    name,
    derived,
  }: { maker: Maker; summary: string; name: string; derived: Derived },
): Promise<number> {
  const taken = await tx.count(VariableEntity, { studyId: maker.studyId, name });
  if (taken > 0) throw problems.nameTaken('variable', name);
  const { id, position } = await row<{ id: number; position: number }>(
    tx,
    `select nextval(pg_get_serial_sequence('variable', 'id'))::int as id,
       (select coalesce(max(position) + 1, 0) from variable where study_id = :studyId) as position`,
    { studyId: maker.studyId },
  );
  const fresh: VariableRecord = {
    id,
    position,
    name,
    derived,
    studyId: maker.studyId,
    kind: 'category',
  };
  await makeChange(tx, {
    ...maker,
    summary,
    diff: { variable: { added: [fresh], removed: [], updated: [] } },
  });
  return id;
}

/** Makes a variable of bands of a number or date. @returns its id */
export async function addBands(
  em: EntityManager,
  { maker, from, name, bands }: { maker: Maker; from: number; name: string; bands: Band[] },
): Promise<number> {
  return em.transactional(async (tx) => {
    const source = await findVariable(tx, maker.studyId, from);
    const limit = source.kind === 'number' ? 'number' : 'string';
    if (!['number', 'date'].includes(source.kind) || source.derived)
      throw problems.noBandsOf(source.name);
    if (bands.some((band) => band.from !== null && typeof band.from !== limit))
      throw problems.noBandsOf(source.name);
    return addDerived(tx, {
      maker,
      summary: variableChangesTexts.banding(source.name),
      name,
      derived: { from, bands },
    });
  });
}

/** Takes a variable that is computed away; what came in with a sheet goes with its import only. */
export async function removeVariable(em: EntityManager, maker: Maker, id: number) {
  await em.transactional(async (tx) => {
    const variable = await findVariable(tx, maker.studyId, id);
    if (!variable.derived) throw problems.variableFromSheet(variable.name);
    await makeChange(tx, {
      ...maker,
      summary: variableChangesTexts.removing(variable.name),
      diff: { variable: { added: [], removed: [variable], updated: [] } },
    });
  });
}
