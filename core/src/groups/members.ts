import {
  addTo,
  emptyBitset,
  fullBitset,
  intersect,
  subtract,
  unite,
  type Bitset,
} from './bitset.js';
import type { MentionCondition, RangeCondition, Rule } from './rule.js';

/** What respondents mention of one question. */
export interface Mentioned {
  /** Those with an answer to it. */
  answered: Bitset;
  /** Those who mention a code. */
  mentioned: (codeId: string) => Bitset;
  /** Those for whom it is decided whether they mention a code. */
  decided: (codeId: string) => Bitset;
}

/** What rules are held against; respondent i stands at place i of every set. */
export interface RuleMaterial {
  size: number;
  /** Who is called what in a background variable; who has stated nothing is in no set. */
  labelled: (variableId: number) => ReadonlyMap<string, Bitset>;
  /** The stored number or date of each respondent; null where nothing is stated. */
  values: (variableId: number) => readonly (number | string | null)[];
  /** By question id. */
  questions: ReadonlyMap<number, Mentioned>;
  /** The codes of a theme. */
  codesOf: (themeId: string) => readonly string[];
  cameWith: (importId: number) => Bitset;
  /** The rule of another group; undefined for one that is gone, which nobody belongs to. */
  ruleOf: (groupId: string) => Rule | undefined;
}

/**
 * The respondents that a rule picks.
 *
 * "All of" without conditions picks everybody, "any of" without conditions nobody. A circle of groups is refused where
 * it is made, yet undoing older changes can close one: a group that comes back to itself picks nobody there, so that
 * it can still be seen and corrected.
 */
export function membersOf(rule: Rule, material: RuleMaterial): Bitset {
  const groups = new Map<string, Bitset | 'begun'>();
  const { size } = material;
  const nobody = () => emptyBitset(size);
  const all = fullBitset(size);
  const unionOf = (sets: readonly Bitset[]) => sets.reduce(unite, nobody());
  const stated = (variableId: number) => unionOf([...material.labelled(variableId).values()]);

  const ofGroup = (groupId: string): Bitset => {
    const known = groups.get(groupId);
    if (known === 'begun') return nobody();
    if (known) return known;
    groups.set(groupId, 'begun');
    const its = material.ruleOf(groupId);
    const members = its ? pick(its) : nobody();
    groups.set(groupId, members);
    return members;
  };

  function pick(one: Rule): Bitset {
    switch (one.is) {
      case 'all_of':
        return one.rules.map(pick).reduce(intersect, all);
      case 'any_of':
        return unionOf(one.rules.map(pick));
      case 'none_of':
        return subtract(all, unionOf(one.rules.map(pick)));
      case 'value': {
        const labelled = material.labelled(one.variableId);
        const named = unionOf(one.labels.map((label) => labelled.get(label) ?? nobody()));
        return one.test === 'any_of' ? named : subtract(stated(one.variableId), named);
      }
      case 'range':
        return inRange(one, material);
      case 'stated':
        return one.stated ? stated(one.variableId) : subtract(all, stated(one.variableId));
      case 'mentions':
        return whoMentions(one, material);
      case 'answered': {
        const answered = material.questions.get(one.questionId)?.answered ?? nobody();
        return one.answered ? answered : subtract(all, answered);
      }
      case 'came_with':
        return unionOf(one.importIds.map(material.cameWith));
      case 'in_group':
        return one.member ? ofGroup(one.groupId) : subtract(all, ofGroup(one.groupId));
    }
  }
  return pick(rule);
}

function inRange({ variableId, from, to }: RangeCondition, material: RuleMaterial): Bitset {
  const members = emptyBitset(material.size);
  const kind = typeof (from ?? to);
  material.values(variableId).forEach((value, i) => {
    if (value === null || typeof value !== kind) return;
    if ((from === null || value >= from) && (to === null || value <= to)) addTo(members, i);
  });
  return members;
}

/**
 * Who mentions what is asked for. Only those count for whom the code is decided, as in every figure of the report:
 * "none" takes those who are decided for all of the codes in a question, and mention none of them in any.
 */
function whoMentions(
  { which, codeIds, themeIds, questionId }: MentionCondition,
  { size, questions, codesOf }: RuleMaterial,
): Bitset {
  const asked = [...questions].filter(([id]) => questionId === null || id === questionId);
  const mentioning = (codeId: string) =>
    asked
      .map(([, { answered, decided, mentioned }]) =>
        intersect(intersect(mentioned(codeId), decided(codeId)), answered),
      )
      .reduce(unite, emptyBitset(size));
  // a theme is mentioned by whoever mentions one of its codes
  const wanted = [...codeIds.map((id) => [id]), ...themeIds.map(codesOf)];
  const sets = wanted.map((codes) => codes.map(mentioning).reduce(unite, emptyBitset(size)));
  const any = sets.reduce(unite, emptyBitset(size));
  if (which === 'any') return any;
  if (which === 'all') return sets.length === 0 ? any : sets.reduce(intersect);
  const decidedSomewhere = asked
    .map(([, { answered, decided }]) => wanted.flat().map(decided).reduce(intersect, answered))
    .reduce(unite, emptyBitset(size));
  return subtract(decidedSomewhere, any);
}
