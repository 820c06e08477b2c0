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

/** What a condition stands on. */
export function referencesIn(condition: Rule): RuleReference[] {
  if (condition.is === 'in_group') return [{ groupId: condition.groupId }];
  return 'variableId' in condition ? [{ variableId: condition.variableId }] : [];
}

/** How deep conditions are joined: 1 for a condition by itself. */
export const depthOf = (rule: Rule): number =>
  'rules' in rule ? 1 + Math.max(0, ...rule.rules.map(depthOf)) : 1;

/** A group or a variable that rules stand on. */
export type RuleReference = { groupId: string } | { variableId: number };

/**
 * The way by which a rule comes back to its own group, through other groups and through variables that are made by rules.
 *
 * @param rulesOf the rules of a group or variable; none where it has none or is not there
 * @returns from the group back to itself, or null when there is no circle
 */
export function findCycle(
  groupId: string,
  rule: Rule,
  rulesOf: (ground: RuleReference) => readonly Rule[],
): RuleReference[] | null {
  const seen = new Set<string | number>();
  const search = (current: Rule, way: RuleReference[]): RuleReference[] | null => {
    for (const ground of conditionsIn(current).flatMap(referencesIn)) {
      const key = 'groupId' in ground ? ground.groupId : ground.variableId;
      if (key === groupId) return [...way, ground];
      if (seen.has(key)) continue;
      seen.add(key);
      for (const further of rulesOf(ground)) {
        const found = search(further, [...way, ground]);
        if (found) return found;
      }
    }
    return null;
  };
  return search(rule, [{ groupId }]);
}
