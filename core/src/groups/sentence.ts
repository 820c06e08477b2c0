import type { MentionCondition, Rule } from './rule.js';
import { sentenceTexts } from '../wording/groups.js';

/** What the things of a rule are called; null for one that was deleted. */
export interface RuleNames {
  variable: (id: number) => string | null;
  question: (id: number) => string | null;
  code: (id: string) => string | null;
  theme: (id: string) => string | null;
  import: (id: number) => string | null;
  group: (id: string) => string | null;
}

/** Whom a rule picks, as a sentence without its full stop. */
export const ruleSubject = (rule: Rule, names: RuleNames): string =>
  rule.is === 'all_of' && rule.rules.length === 0
    ? sentenceTexts.everybodyNoConditionYet
    : `Respondents ${ruleSentence(rule, names)}`;

/** A rule as the end of a sentence that begins with "Respondents": "whose home is Tye or Hask, and who …". */
export function ruleSentence(rule: Rule, names: RuleNames): string {
  const of = (one: Rule): string => ruleSentence(one, names);
  const variableName = (id: number) => {
    const name = names.variable(id);
    return name === null ? sentenceTexts.valueDeletedVariable : `“${name}”`;
  };
  switch (rule.is) {
    case 'all_of':
      if (rule.rules.length === 0) return sentenceTexts.whoMeetNoCondition;
      return rule.rules.map((one) => inBrackets(one, of(one))).join(', and ');
    case 'any_of':
      if (rule.rules.length === 0) return sentenceTexts.whomNoConditionCan;
      return rule.rules.map((one) => inBrackets(one, of(one))).join(', or ');
    case 'none_of':
      return sentenceTexts.whomNoneHolds(
        rule.rules.map((one) => inBrackets(one, of(one))).join('; '),
      );
    case 'value': {
      const { labels } = rule;
      const name = variableName(rule.variableId);
      return rule.test === 'any_of'
        ? sentenceTexts.whose(name, listed(labels, 'or'))
        : sentenceTexts.whoseStated(name, listed(labels, 'or'));
    }
    case 'range': {
      const name = variableName(rule.variableId);
      const { from, to } = rule;
      if (from !== null && to !== null) return sentenceTexts.whose2(name, from, to);
      if (from !== null) return sentenceTexts.whose3(name, from, later(from));
      if (to !== null) return sentenceTexts.whose4(name, to, earlier(to));
      return sentenceTexts.whoseNoLimits(name);
    }
    case 'stated':
      return sentenceTexts.whose5(variableName(rule.variableId), rule.stated);
    case 'mentions':
      return mentionSentence(rule, names);
    case 'answered':
      return `who ${rule.answered ? 'answered' : sentenceTexts.answer} ${quoted(names.question(rule.questionId), 'question')}`;
    case 'came_with':
      return sentenceTexts.whoCame(
        listed(
          rule.importIds.map((id) => quoted(names.import(id), 'import')),
          'or',
        ),
      );
    case 'in_group':
      return sentenceTexts.who(rule.member, quoted(names.group(rule.groupId), 'group'));
  }
}

function mentionSentence(
  { which, codeIds, themeIds, questionId }: MentionCondition,
  names: RuleNames,
): string {
  const things = [
    ...codeIds.map((id) => quoted(names.code(id), 'code')),
    ...themeIds.map((id) => quoted(names.theme(id), 'theme')),
  ];
  const where =
    questionId === null
      ? sentenceTexts.anyQuestion
      : `answering ${quoted(names.question(questionId), 'question')}`;
  if (which === 'none') return sentenceTexts.whoDecidedMention(listed(things, 'or'), where);
  return sentenceTexts.whoMention(listed(things, which === 'any' ? 'or' : 'and'), where);
}

const quoted = (name: string | null, what: string) =>
  name === null ? sentenceTexts.deleted(what) : `“${name}”`;
const later = (limit: number | string) => (typeof limit === 'number' ? 'more' : 'later');
const earlier = (limit: number | string) => (typeof limit === 'number' ? 'less' : 'earlier');

function listed(parts: readonly string[], joint: 'and' | 'or'): string {
  if (parts.length === 0) return '…';
  if (parts.length === 1) return parts[0]!;
  return `${parts.slice(0, -1).join(', ')} ${joint} ${parts.at(-1)}`;
}

/** Rules that are joined themselves stand in brackets among others. */
const inBrackets = (rule: Rule, sentence: string) =>
  'rules' in rule && rule.rules.length > 1 ? `(${sentence})` : sentence;
