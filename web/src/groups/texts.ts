import { asCount, counted } from '../parts/numbers.js';

/** groups/size.tsx */
export const sizeTexts = {
  peopleCounted: (people: number) => counted(people, 'person', 'people'),
  of: (value: number) => `of ${asCount(value)}`,
};

/** groups/conditionForm.tsx */
export const conditionFormTexts = {
  goneTakeOut: 'is gone: take this out',
  answered: 'Answered or not',
  answered2: 'answered',
  answer: 'did not answer',
  inItOrNot: 'In it or not',
  in: 'in',
  notIn: 'not in',
  whichGroup: 'Which group',
  whichQuestion: 'Which question',
  deletedTheme: 'a deleted theme',
  deletedCode: 'a deleted code',
  whichThem: 'Which of them',
  any: 'any of',
  all: 'all of',
  none: 'none of',
  noLonger: (name: string) => `No longer ${name}`,
  codesMention: 'Codes that they mention',
  themesMention: 'Themes that they mention',
  theme: 'a theme …',
  anyQuestion: 'any question',
};

/** groups/rules.ts */
export const rulesTexts = {
  whatKnownThem: 'What is known of them',
  whatWrote: 'What they wrote',
  whatMention: 'what they mention',
  whetherAnswered: 'whether they answered',
  whereBelong: 'Where they belong',
  anotherGroup: 'another group',
  sheetCame: 'the sheet that they came with',
};

/** groups/joinedRule.tsx */
export const joinedRuleTexts = {
  allHolds: 'all of this holds',
  anyHolds: 'any of this holds',
  noneHolds: 'none of this holds',
  respondentsWhom: 'Respondents of whom',
  whom: 'of whom',
  conditions: 'these conditions',
  rules: 'rules',
  whatConditionAbout: 'What the condition is about',
  condition: 'this condition',
  addCondition: 'Add a condition',
  addConditionsBrackets: 'Add conditions in brackets',
  takeOut: (what: string) => `Take out ${what}`,
};

/** groups/groupEditor.tsx */
export const groupEditorTexts = {
  newGroup: 'A new group',
  group: (group: string) => `The group ${group}`,
  name: 'Name',
  what: 'What it is for',
  optional: 'optional',
  saveGroup: 'Save the group',
  cancel: 'Cancel',
  needsName: 'It needs a name.',
  someConditionSaysNothing: 'Some condition says nothing yet.',
  size: 'the size',
};

/** groups/byRule.ts */
export const byRuleTexts = {
  yes: 'Yes',
  no: 'No',
};

/** groups/variableMaker.tsx */
export const variableMakerTexts = {
  putsEverybodyOneCategory:
    'It puts everybody in one category at most, and can break a report down, be sampled by and be exported like any other variable. It follows the coding.',
  categories: 'Its categories are',
  groups: 'groups',
  whetherSomethingMentioned: 'whether something is mentioned',
  nameNewVariable: 'Name of the new variable',
  makeVariable: 'Make the variable',
  groupsOrderCategories: 'Groups, in the order of the categories',
  peopleSeveral: 'People in several',
  countFirstChosen: 'count in the first chosen',
  categorySeveral: 'are a category, “In several”',
  peopleNone: 'People in none',
  stated: 'are not stated',
  categoryNone: 'are a category, “In none”',
  themeCode: 'Theme or code',
  chooseOne: 'choose one …',
  themes: 'Themes',
  codes: 'Codes',
  mentioned: 'Mentioned in',
  anyQuestion: 'any question',
  noWhoseAnswersDecided:
    '“No” is for those whose answers are decided for it; who is not decided, or gave no answer, is not stated.',
};

/** groups/groupsPage.tsx */
export const groupsPageTexts = {
  groups: 'the groups',
  groups2: 'Groups',
  groupRuleWhoBelongs:
    'A group is a rule. Who belongs to it follows from what is known of people and from what is coded, and is up to date at any time.',
  newVariable: 'A new variable',
  makeVariable: 'Make a variable …',
  newGroup: 'New group',
  noGroupsYet: 'No groups yet',
  groupsCompareKindsRespondents:
    'Groups compare kinds of respondents in the report: “women under 40”, “everyone who mentions fares”, or one group without another. The study can be restricted to one.',
  lookEverybody: 'Look at everybody',
  lookOnly: 'Look at these only',
  change: 'Change',
  remove: 'Remove',
};
