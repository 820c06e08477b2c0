import type { Rule } from '@yellow-thread/contract';
import { ruleSentence, type RuleNames } from '@yellow-thread/core/groups';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  CodeEntity,
  QuestionEntity,
  rows,
  ThemeEntity,
  VariableEntity,
} from '../database/index.js';
import { readGroups } from './stored.js';

/** What everything that a rule may speak of is called. */
export async function readRuleNames(em: EntityManager, studyId: number): Promise<RuleNames> {
  const where = { studyId };
  const named = <Id>(list: readonly { id: Id; name: string }[]) => {
    const names = new Map(list.map(({ id, name }) => [id, name]));
    return (id: Id) => names.get(id) ?? null;
  };
  const questions = await em.find(QuestionEntity, where);
  return {
    variable: named(await em.find(VariableEntity, where)),
    question: named(questions.map(({ id, label }) => ({ id, name: label }))),
    code: named(await em.find(CodeEntity, where)),
    theme: named(await em.find(ThemeEntity, where)),
    import: named(
      await rows<{ id: number; name: string }>(
        em,
        `select id, coalesce(nullif(settings->>'wave', ''), file_name) as name from import where study_id = :studyId`,
        { studyId },
      ),
    ),
    group: named(await readGroups(em, studyId)),
  };
}

/** A group in words, wherever a figure is restricted to it. */
export async function describeRule(em: EntityManager, studyId: number, rule: Rule) {
  return `respondents ${ruleSentence(rule, await readRuleNames(em, studyId))}`;
}
