import type { ByRule, Group, Rule } from '@yellow-thread/contract';
import { byRuleTexts } from './texts.js';

const LONGEST_NAME = 120;

/** A variable as it is proposed: its name, and the categories that people are assigned to. */
export interface ProposedVariable {
  name: string;
  by: ByRule;
}

/**
 * A variable whose categories are groups.
 *
 * @param chosen ids of the groups, in the order of the categories
 * @returns null while none is chosen
 */
export function ofGroups(
  groups: readonly Pick<Group, 'id' | 'name'>[],
  chosen: readonly string[],
  rest: Pick<ByRule, 'inSeveral' | 'inNone'>,
): ProposedVariable | null {
  const rules = chosen.flatMap((id) => {
    const group = groups.find((one) => one.id === id);
    const rule: Rule = { is: 'in_group', groupId: id, member: true };
    return group ? [{ label: group.name, rule }] : [];
  });
  if (rules.length === 0) return null;
  const names = rules.map(({ label }) => label).join(' / ');
  return { name: names.slice(0, LONGEST_NAME), by: { rules, ...rest } };
}

/**
 * Whether a theme or code is mentioned: who is not decided for it is in neither category.
 *
 * @param where the question that it is mentioned in; null for any
 */
export function ofMentions(
  what: { kind: 'theme' | 'code'; id: string; name: string },
  where: { id: number; label: string } | null,
): ProposedVariable {
  const mentions = (which: 'any' | 'none'): Rule => ({
    is: 'mentions',
    which,
    questionId: where?.id ?? null,
    codeIds: what.kind === 'code' ? [what.id] : [],
    themeIds: what.kind === 'theme' ? [what.id] : [],
  });
  const rules = [
    { label: byRuleTexts.yes, rule: mentions('any') },
    { label: byRuleTexts.no, rule: mentions('none') },
  ];
  const name = `Mentions ${what.name}${where ? `, ${where.label}` : ''}`;
  return { name: name.slice(0, LONGEST_NAME), by: { rules, inSeveral: null, inNone: null } };
}
