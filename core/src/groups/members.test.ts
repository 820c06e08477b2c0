import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addTo, countOf, emptyBitset, forEachIn, type Bitset } from './bitset.js';
import { membersOf, type RuleMaterial } from './members.js';
import { findCycle, type Rule, type RuleReference } from './rule.js';
import { ruleSentence } from './sentence.js';

// six people: home, age, what they mention of question 1 (a, b of theme t), decided for
const size = 6;
const setOf = (...members: number[]): Bitset => {
  const set = emptyBitset(size);
  for (const i of members) addTo(set, i);
  return set;
};
const homes = new Map([
  ['Tye', setOf(0, 1)],
  ['Hask', setOf(2, 3)],
  ['Rook', setOf(4)],
]);
const ages = [20, 35, null, 50, 65, 35];
const mentions: Record<string, Bitset> = { a: setOf(0, 2, 5), b: setOf(2, 3) };
const groups = new Map<string, Rule>([
  ['young', { is: 'range', variableId: 2, from: null, to: 40 }],
  [
    'young at home',
    {
      is: 'all_of',
      rules: [
        { is: 'in_group', groupId: 'young', member: true },
        { is: 'value', variableId: 1, test: 'any_of', labels: ['Tye'] },
      ],
    },
  ],
]);
const material: RuleMaterial = {
  size,
  labelled: (id) => (id === 1 ? homes : new Map([['stated', setOf(0, 1, 3, 4, 5)]])),
  values: () => ages,
  questions: new Map([
    [
      1,
      {
        answered: setOf(0, 1, 2, 3, 5),
        mentioned: (code) => mentions[code] ?? setOf(),
        // nobody has decided yet about person 5
        decided: () => setOf(0, 1, 2, 3, 4),
      },
    ],
  ]),
  codesOf: () => ['a', 'b'],
  cameWith: (id) => (id === 7 ? setOf(4, 5) : setOf(0, 1, 2, 3)),
  ruleOf: (id) => groups.get(id),
};
const picked = (rule: Rule): number[] => {
  const found: number[] = [];
  forEachIn(membersOf(rule, material), (i) => found.push(i));
  return found;
};
const mention = { is: 'mentions', codeIds: [], themeIds: [], questionId: null } as const;

test.each<[string, Rule, number[]]>([
  ['value', { is: 'value', variableId: 1, test: 'any_of', labels: ['Tye', 'Rook'] }, [0, 1, 4]],
  [
    'none of, among those stated',
    { is: 'value', variableId: 1, test: 'none_of', labels: ['Tye'] },
    [2, 3, 4],
  ],
  ['not stated', { is: 'stated', variableId: 1, stated: false }, [5]],
  ['between, both ends included', { is: 'range', variableId: 2, from: 35, to: 50 }, [1, 3, 5]],
  ['a limit of another kind', { is: 'range', variableId: 2, from: '2026-01-01', to: null }, []],
  ['mentions any, where decided', { ...mention, which: 'any', codeIds: ['a', 'b'] }, [0, 2, 3]],
  ['mentions all', { ...mention, which: 'all', codeIds: ['a', 'b'] }, [2]],
  ['mentions a theme', { ...mention, which: 'any', themeIds: ['t'] }, [0, 2, 3]],
  [
    'mentions none, only where decided and answered',
    { ...mention, which: 'none', codeIds: ['a'] },
    [1, 3],
  ],
  ['did not answer', { is: 'answered', questionId: 1, answered: false }, [4]],
  ['came with an import', { is: 'came_with', importIds: [7] }, [4, 5]],
  ['a group on a group', { is: 'in_group', groupId: 'young at home', member: true }, [0, 1]],
  ['outside of a group', { is: 'in_group', groupId: 'young', member: false }, [2, 3, 4]],
  ['a deleted group', { is: 'in_group', groupId: 'gone', member: true }, []],
])('picks by %s', (_, rule, expected) => expect(picked(rule)).toEqual(expected));

const leaf = fc.constantFrom<Rule>(
  { is: 'value', variableId: 1, test: 'any_of', labels: ['Tye'] },
  { is: 'range', variableId: 2, from: 30, to: null },
  { ...mention, which: 'any', codeIds: ['b'] },
  { is: 'in_group', groupId: 'young', member: true },
);
const { rule: anyRule } = fc.letrec<{ rule: Rule }>((tie) => ({
  rule: fc.oneof(
    { maxDepth: 3 },
    leaf,
    fc.record({
      is: fc.constantFrom('all_of' as const, 'any_of' as const, 'none_of' as const),
      rules: fc.array(tie('rule'), { maxLength: 3 }),
    }),
  ),
}));

test('joined conditions keep the laws of sets', () => {
  fc.assert(
    fc.property(fc.array(anyRule, { maxLength: 4 }), (rules) => {
      const by = (is: 'all_of' | 'any_of' | 'none_of', some: Rule[]) => picked({ is, rules: some });
      const not = (one: Rule): Rule => ({ is: 'none_of', rules: [one] });
      // De Morgan
      expect(by('none_of', rules)).toEqual(by('all_of', rules.map(not)));
      expect(by('any_of', rules)).toEqual(picked(not({ is: 'all_of', rules: rules.map(not) })));
      // order and repetition change nothing
      expect(by('all_of', [...rules, ...rules].reverse())).toEqual(by('all_of', rules));
      const sizes = rules.map((one) => countOf(membersOf(one, material)));
      expect(by('any_of', rules).length).toBeGreaterThanOrEqual(Math.max(0, ...sizes));
      expect(by('all_of', rules).length).toBeLessThanOrEqual(Math.min(size, ...sizes));
    }),
  );
});

test('a circle of groups is found with its way, and picks nobody where it is closed', () => {
  const rules = new Map<string, Rule>([
    ['b', { is: 'none_of', rules: [{ is: 'in_group', groupId: 'c', member: true }] }],
    ['c', { is: 'stated', variableId: 9, stated: true }],
    ['d', { is: 'in_group', groupId: 'd', member: true }],
  ]);
  const ruleOf = (id: string) => rules.get(id);
  // variable 9 is made by rules
  const made: Rule[] = [{ is: 'any_of', rules: [{ is: 'in_group', groupId: 'a', member: false }] }];
  const rulesOf = (ground: RuleReference) =>
    'groupId' in ground ? [ruleOf(ground.groupId)].filter((one) => !!one) : made;
  const onB: Rule = { is: 'in_group', groupId: 'b', member: true };
  expect(findCycle('a', onB, rulesOf)).toEqual([
    { groupId: 'a' },
    { groupId: 'b' },
    { groupId: 'c' },
    { variableId: 9 },
    { groupId: 'a' },
  ]);
  // another group's circle is not this one's
  expect(findCycle('x', { is: 'in_group', groupId: 'd', member: true }, rulesOf)).toBeNull();
  // one that was closed all the same still comes to an end
  expect(countOf(membersOf(rules.get('d')!, { ...material, ruleOf }))).toBe(0);
});

const names = {
  variable: (id: number) => ['', 'Home', 'Age'][id] ?? null,
  question: () => 'Why?',
  code: (id: string) => ({ a: 'Fares' })[id] ?? null,
  theme: () => 'Getting on',
  import: () => 'spring.csv',
  group: (id: string) => id,
};

test('a rule reads as a sentence', () => {
  const rule: Rule = {
    is: 'all_of',
    rules: [
      { is: 'value', variableId: 1, test: 'any_of', labels: ['Tye', 'Hask'] },
      {
        is: 'any_of',
        rules: [
          { is: 'range', variableId: 2, from: 65, to: null },
          { ...mention, which: 'all', codeIds: ['a', 'gone'], questionId: 1 },
        ],
      },
      { is: 'in_group', groupId: 'young', member: false },
    ],
  };
  expect(ruleSentence(rule, names)).toBe(
    'whose “Home” is Tye or Hask, and (whose “Age” is 65 or more, or who mention “Fares” and a deleted code answering “Why?”), and who are not in “young”',
  );
});

test.each<[Rule, string]>([
  [{ is: 'all_of', rules: [] }, 'who meet no condition (none was made yet)'],
  [{ is: 'any_of', rules: [] }, 'whom no condition can match'],
  [
    {
      is: 'none_of',
      rules: [
        { is: 'stated', variableId: 1, stated: false },
        { is: 'answered', questionId: 1, answered: true },
      ],
    },
    'who meet none of these: whose “Home” is not stated; who answered “Why?”',
  ],
  [
    { is: 'value', variableId: 1, test: 'none_of', labels: ['Tye'] },
    'whose “Home” is stated and is not Tye',
  ],
  [{ is: 'range', variableId: 2, from: 7, to: 8 }, 'whose “Age” is from 7 to 8'],
  [
    { is: 'range', variableId: 9, from: null, to: '2026-01-31' },
    'whose value of a deleted variable is 2026-01-31 or earlier',
  ],
  [
    { ...mention, which: 'none', codeIds: ['a'], themeIds: ['t'], questionId: null },
    'who are decided for and do not mention “Fares” or “Getting on” in any question',
  ],
  [{ is: 'came_with', importIds: [1] }, 'who were imported with “spring.csv”'],
])('%j reads as it is meant', (rule, sentence) => {
  expect(ruleSentence(rule, names)).toBe(sentence);
});
