import type { BackgroundValue, Derived } from '@yellow-thread/contract';
import { defineEntity, p, type InferEntity } from '@mikro-orm/core';

export const RespondentEntity = defineEntity({
  name: 'Respondent',
  tableName: 'respondent',
  properties: {
    id: p.integer().primary().autoincrement(),
    studyId: p.integer(),
    importId: p.integer(),
    externalId: p.text(),
    weight: p.float().columnType('double precision').nullable(),
    background: p.json<Record<string, BackgroundValue | null>>(),
  },
});

export const VariableEntity = defineEntity({
  name: 'Variable',
  tableName: 'variable',
  properties: {
    id: p.integer().primary().autoincrement(),
    studyId: p.integer(),
    position: p.integer(),
    name: p.text(),
    kind: p.enum(['category', 'number', 'date', 'yes_no'] as const),
    distinctValues: p.integer().default(0),
    importId: p.integer().nullable(),
    /** Set for a variable that is computed. */
    derived: p.json<Derived>().nullable(),
  },
});

export const CategoryEntity = defineEntity({
  name: 'Category',
  tableName: 'category',
  properties: {
    variableId: p.integer().primary(),
    /** The value as it stands in the sheet; `label` is what people see. */
    value: p.text().primary(),
    label: p.text(),
    position: p.integer(),
  },
});

export type VariableRow = InferEntity<typeof VariableEntity>;
