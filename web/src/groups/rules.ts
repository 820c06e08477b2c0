import type { Rule, RuleCondition, StudyDetail } from '@yellow-thread/contract';
import { onVariable, saysSomething } from '../studyParts/variableCondition.js';
import { rulesTexts } from './texts.js';

/** Conditions joined with each other. */
export type Joined = Extract<Rule, { rules: Rule[] }>;

/** Whether a rule says something at every point. */
export function isComplete(rule: Rule): boolean {
  switch (rule.is) {
    case 'all_of':
    case 'any_of':
    case 'none_of':
      return rule.rules.length > 0 && rule.rules.every(isComplete);
    case 'value':
    case 'range':
    case 'stated':
      return saysSomething(rule);
    case 'mentions':
      return rule.codeIds.length + rule.themeIds.length > 0;
    case 'came_with':
      return rule.importIds.length > 0;
    case 'answered':
    case 'in_group':
      return true;
  }
}

/** What a condition may be about, as a list to choose from. */
export type Subject = { key: string; name: string; begin: () => RuleCondition };

export function subjectsOf(
  study: StudyDetail,
  others: readonly { id: string; name: string }[],
  imports: readonly { id: number }[],
): { title: string; subjects: Subject[] }[] {
  const first = study.questions[0];
  return [
    {
      title: rulesTexts.whatKnownThem,
      subjects: study.variables.map((variable) => ({
        key: `variable-${variable.id}`,
        name: variable.name,
        begin: () => onVariable(variable),
      })),
    },
    {
      title: rulesTexts.whatWrote,
      subjects: [
        {
          key: 'mentions',
          name: rulesTexts.whatMention,
          begin: (): RuleCondition => ({
            is: 'mentions',
            which: 'any',
            codeIds: [],
            themeIds: [],
            questionId: null,
          }),
        },
        ...(first
          ? [
              {
                key: 'answered',
                name: rulesTexts.whetherAnswered,
                begin: (): RuleCondition => ({
                  is: 'answered',
                  questionId: first.id,
                  answered: true,
                }),
              },
            ]
          : []),
      ],
    },
    {
      title: rulesTexts.whereBelong,
      subjects: [
        ...(others[0]
          ? [
              {
                key: 'in_group',
                name: rulesTexts.anotherGroup,
                begin: (): RuleCondition => ({
                  is: 'in_group',
                  groupId: others[0]!.id,
                  member: true,
                }),
              },
            ]
          : []),
        ...(imports.length > 0
          ? [
              {
                key: 'came_with',
                name: rulesTexts.sheetCame,
                begin: (): RuleCondition => ({ is: 'came_with', importIds: [] }),
              },
            ]
          : []),
      ],
    },
  ].filter(({ subjects }) => subjects.length > 0);
}

/** What a condition is about. */
export const subjectOf = (condition: RuleCondition): string =>
  'variableId' in condition ? `variable-${condition.variableId}` : condition.is;
