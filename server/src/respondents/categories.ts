import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';

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
       from rows from (jsonb_to_recordset(:categories::jsonb) as ("variableId" int, value text, label text))
         with ordinality as r ("variableId", value, label, ordinality)) f
     where length(f.value) <= ${LONGEST_CATEGORY} and not exists (
       select 1 from category c where c.variable_id = f."variableId" and c.value = f.value)
     on conflict do nothing`,
    { categories: JSON.stringify(categories) },
  );
