import { expect, test } from '@jest/globals';
import { byRuleCreateSchema } from '@yellow-thread/contract';
import { ofGroups, ofMentions } from './byRule.js';

const [young, old] = [crypto.randomUUID(), crypto.randomUUID()];
const groups = [
  { id: young, name: 'Young' },
  { id: old, name: 'o'.repeat(120) },
];

test('groups are categories in the order chosen; one that is gone since is none', () => {
  const rest = { inSeveral: 'In several', inNone: null };
  expect(ofGroups(groups, [], rest)).toBeNull();
  expect(ofGroups(groups, [crypto.randomUUID()], rest)).toBeNull();
  const made = ofGroups(groups, [old, young], rest)!;
  expect(byRuleCreateSchema.parse(made)).toEqual(made);
  expect(made.by).toMatchObject({
    ...rest,
    rules: [
      { rule: { is: 'in_group', groupId: old, member: true } },
      { label: 'Young', rule: { groupId: young } },
    ],
  });
});

test('a theme or a code is mentioned, or decided and not', () => {
  const made = ofMentions({ kind: 'theme', id: young, name: 'Price' }, { id: 7, label: 'Improve' });
  expect(byRuleCreateSchema.parse(made)).toEqual(made);
  expect(made.name).toBe('Mentions Price, Improve');
  const [yes, no] = made.by.rules;
  expect(yes).toMatchObject({ label: 'Yes', rule: { which: 'any', themeIds: [young] } });
  expect(no).toMatchObject({ label: 'No', rule: { which: 'none', codeIds: [], questionId: 7 } });
  const anywhere = ofMentions({ kind: 'code', id: old, name: 'Fares' }, null);
  expect(anywhere.name).toBe('Mentions Fares');
  expect(anywhere.by.rules[0]!.rule).toMatchObject({ codeIds: [old], questionId: null });
});
