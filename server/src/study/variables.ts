import { valueName } from '@yellow-thread/core/groups';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, VariableEntity } from '../database/index.js';
import { problems } from '../problems.js';

/** How the values of a variable are called and ordered. */
export interface VariableReader {
  /** The variable whose values are stored: another one where this is worked out from it. */
  valueId: number;
  /** What a stored value is called; null when it is none, or in no band. */
  labelOf: (value: string | number | boolean | null) => string | null;
  /** Where a label stands among the others; the same for all where the study has no order of its own. */
  placeOf: (label: string) => number;
}

/** @throws Problem not_found when the variable is not of this study */
export async function readVariable(
  em: EntityManager,
  studyId: number,
  id: number,
): Promise<VariableReader> {
  const variable = await em.findOne(VariableEntity, { id, studyId });
  if (!variable) throw problems.notFound('variable');
  const { derived = null } = variable;
  const categories = await rows<{ value: string; label: string }>(
    em,
    'select value, label from category where variable_id = ? order by position, value',
    [id],
  );
  const labels = Object.fromEntries(categories.map(({ value, label }) => [value, label]));
  const order = (derived?.bands ?? categories).map(({ label }) => label);
  return {
    valueId: derived?.from ?? id,
    labelOf: (value) => valueName({ derived, labels }, value),
    placeOf: (label) => (order.includes(label) ? order.indexOf(label) : order.length),
  };
}

const LONGEST_CATEGORY = 200;

/** Adds categories to variables behind those that are there; a value that is known keeps its name and place. */
export const addCategories = (
  em: EntityManager,
  categories: readonly { variableId: number; value: string; label: string }[],
) =>
  rows(
    em,
    `insert into category (variable_id, value, label, position)
     select f."variableId", f.value, f.label, f.place - 1 + (
       select count(*) from category c where c.variable_id = f."variableId")
     from (
       select r.*, row_number() over (partition by r."variableId" order by r.ordinality) as place
       from rows from (jsonb_to_recordset(?::jsonb) as ("variableId" int, value text, label text))
         with ordinality as r ("variableId", value, label, ordinality)) f
     where length(f.value) <= ${LONGEST_CATEGORY} and not exists (
       select 1 from category c where c.variable_id = f."variableId" and c.value = f.value)
     on conflict do nothing`,
    [JSON.stringify(categories)],
  );
