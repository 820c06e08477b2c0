/**
 * A rule that picks respondents: a condition, or conditions joined to any depth.
 *
 * A condition that asks for what is not known picks nobody: who has not stated an age is neither between two ages nor
 * of none of some categories, and who is not decided for a code does not count as never mentioning it.
 */
export type Rule =
  | { is: 'all_of' | 'any_of' | 'none_of'; rules: readonly Rule[] }
  | ValueCondition
  | RangeCondition
  | StatedCondition
  | MentionCondition
  | AnsweredCondition
  | { is: 'came_with'; importIds: readonly number[] }
  | { is: 'in_group'; groupId: string; member: boolean };

/** The value is one of these, or is stated and none of these; as the study calls its values. */
export interface ValueCondition {
  is: 'value';
  variableId: number;
  test: 'any_of' | 'none_of';
  labels: readonly string[];
}
/** A number or date from one limit to another, both included; null for no limit on that side. */
export interface RangeCondition {
  is: 'range';
  variableId: number;
  from: number | string | null;
  to: number | string | null;
}
export interface StatedCondition {
  is: 'stated';
  variableId: number;
  stated: boolean;
}
/** Mentions of codes and of the codes of themes, in one question or, where it is null, in any. */
export interface MentionCondition {
  is: 'mentions';
  which: 'any' | 'all' | 'none';
  codeIds: readonly string[];
  themeIds: readonly string[];
  questionId: number | null;
}
export interface AnsweredCondition {
  is: 'answered';
  questionId: number;
  answered: boolean;
}

/** Every condition in a rule, whatever it is joined with. */
export function conditionsIn(rule: Rule): Exclude<Rule, { rules: readonly Rule[] }>[] {
  return 'rules' in rule ? rule.rules.flatMap(conditionsIn) : [rule];
}

/** How deep conditions are joined: 1 for a condition by itself. */
export const depthOf = (rule: Rule): number =>
  'rules' in rule ? 1 + Math.max(0, ...rule.rules.map(depthOf)) : 1;

/**
 * The way by which a rule comes back to its own group through other groups.
 *
 * @param ruleOf the rule of a group; undefined for one that is not there
 * @returns group ids from the group back to itself, or null when there is no circle
 */
export function findCircle(
  groupId: string,
  rule: Rule,
  ruleOf: (groupId: string) => Rule | undefined,
): string[] | null {
  const seen = new Set<string>();
  const search = (current: Rule, way: string[]): string[] | null => {
    for (const condition of conditionsIn(current)) {
      if (condition.is !== 'in_group') continue;
      const next = condition.groupId;
      if (next === groupId) return [...way, groupId];
      if (seen.has(next)) continue;
      seen.add(next);
      const further = ruleOf(next);
      const found = further && search(further, [...way, next]);
      if (found) return found;
    }
    return null;
  };
  return search(rule, [groupId]);
}
