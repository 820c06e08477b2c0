import { valueName } from '@yellow-thread/core/groups';
import type { ByRule, Rule } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, VariableEntity } from '../database/index.js';
import { problems } from '../wording/problems.js';

/** How the values of a variable that stand in the database are called and ordered. */
export interface StoredValues {
  /** The variable whose values are stored: another one where this is bands of it. */
  valueId: number;
  /** What a stored value is called; null when it is none, or in no band. */
  labelOf: (value: string | number | boolean | null) => string | null;
  /** Where a label stands among the others; the same for all where the study has no order of its own. */
  placeOf: (label: string) => number;
}

/**
 * Where the values of a variable come from: they are stored, or follow from rules.
 *
 * @throws Problem not_found when the variable is not of this study
 */
export async function readVariable(
  em: EntityManager,
  studyId: number,
  id: number,
): Promise<{ stored: StoredValues } | { byRule: ByRule }> {
  const variable = await em.findOne(VariableEntity, { id, studyId });
  if (!variable) throw problems.notFound('variable');
  const { derived = null } = variable;
  if (derived && 'rules' in derived) return { byRule: derived };
  const bands = derived?.bands ?? null;
  const categories = await rows<{ value: string; label: string }>(
    em,
    'select value, label from category where variable_id = :id order by position, value',
    { id },
  );
  const labels = Object.fromEntries(categories.map(({ value, label }) => [value, label]));
  const order = (bands ?? categories).map(({ label }) => label);
  return {
    stored: {
      valueId: derived?.from ?? id,
      labelOf: (value) => valueName({ bands, labels }, value),
      placeOf: (label) => (order.includes(label) ? order.indexOf(label) : order.length),
    },
  };
}

/** The variables of a study that are made by rules, by id. */
export async function readByRule(
  em: EntityManager,
  studyId: number,
): Promise<Map<number, { name: string; rules: Rule[] }>> {
  const variables = await em.find(VariableEntity, { studyId, derived: { $ne: null } });
  const made = new Map<number, { name: string; rules: Rule[] }>();
  for (const { id, name, derived } of variables)
    if (derived && 'rules' in derived)
      made.set(id, { name, rules: derived.rules.map(({ rule }) => rule) });
  return made;
}
