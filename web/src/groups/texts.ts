import { asCount, counted } from '../lib/numbers.js';

/** groups/size.tsx */
export const sizeTexts = {
  peopleCounted: (people: number) => counted(people, 'person', 'people'),
  of: (value: number) => `of ${asCount(value)}`,
};

/** groups/conditionForm.tsx */
export const conditionFormTexts = {
  goneTakeOut: 'no longer exists: remove this',
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
  noLonger: (name: string) => `Remove ${name}`,
  codesMention: 'Codes that they mention',
  themesMention: 'Themes that they mention',
  theme: 'a theme …',
  anyQuestion: 'any question',
};

/** groups/rules.ts */
export const rulesTexts = {
  whatKnownThem: 'Background',
  whatWrote: 'What they wrote',
  whatMention: 'what they mention',
  whetherAnswered: 'whether they answered',
  whereBelong: 'Where they belong',
  anotherGroup: 'another group',
  sheetCame: 'the sheet they were imported with',
};

/** groups/joinedRule.tsx */
export const joinedRuleTexts = {
  allHolds: 'all of these',
  anyHolds: 'any of these',
  noneHolds: 'none of these',
  respondentsWhom: 'Respondents who meet',
  whom: 'who meet',
  conditions: 'these conditions',
  whatConditionAbout: 'What the condition is about',
  condition: 'this condition',
  addCondition: 'Add a condition',
  addConditionsBrackets: 'Add conditions in brackets',
  takeOut: (what: string) => `Remove ${what}`,
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
  needsName: 'Enter a name.',
  someConditionSaysNothing: 'A condition is not complete yet.',
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
    'It puts everybody in one category at most. Reports can be broken down by it, samples drawn by it, and it is exported like any other variable. It follows the coding.',
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
    'A group is a rule. Who belongs to it follows from the background of respondents and from what is coded, and is always up to date.',
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
  change2: (group: string) => `Change ${group}`,
  remove2: (group: string) => `Remove ${group}`,
};
