/** groups/bands.ts */
export const bandsTexts = {
  before: (from: string, next: string | number) => `${from} to before ${next}`,
  over: (from: number) => `${from} and over`,
  under: (from: number, next: string | number) => `${from} to under ${next}`,
};

/** groups/valueName.ts */
export const valueNameTexts = {
  yes: 'Yes',
  no: 'No',
};

/** groups/sentence.ts */
export const sentenceTexts = {
  everybodyNoConditionYet: 'Everybody (no condition yet)',
  valueDeletedVariable: 'value of a deleted variable',
  whoMeetNoCondition: 'who meet no condition (none was made yet)',
  whomNoConditionCan: 'whom no condition can match',
  whomNoneHolds: (rules: string) => `who meet none of these: ${rules}`,
  whose: (name: string, listed: string) => `whose ${name} is ${listed}`,
  whoseStated: (name: string, listed: string) => `whose ${name} is stated and is not ${listed}`,
  whose2: (name: string, from: string | number, to: string | number) =>
    `whose ${name} is from ${from} to ${to}`,
  whose3: (name: string, from: string | number, later: string) =>
    `whose ${name} is ${from} or ${later}`,
  whose4: (name: string, to: string | number, earlier: string) =>
    `whose ${name} is ${to} or ${earlier}`,
  whoseNoLimits: (name: string) => `whose ${name} has no limits`,
  whose5: (variableName: string, stated: boolean) =>
    `whose ${variableName} is ${stated ? 'stated' : 'not stated'}`,
  answer: 'did not answer',
  whoCame: (listed: string) => `who were imported with ${listed}`,
  who: (member: boolean, quoted: string) => `who are ${member ? '' : 'not '}in ${quoted}`,
  anyQuestion: 'in any question',
  whoDecidedMention: (listed: string, where: string) =>
    `who are decided for and do not mention ${listed} ${where}`,
  whoMention: (listed: string, where: string) => `who mention ${listed} ${where}`,
  deleted: (what: string) => `a deleted ${what}`,
};
