import { expect, test } from '@jest/globals';
import { guessCodeColumns } from './guessCodeColumns.js';
import type { ColumnRole } from './settings.js';

const column = (head: string, role: ColumnRole) => ({
  head,
  name: head,
  role,
  of: '',
  separator: '',
  writing: '' as const,
  reason: '',
});
const nothing = { codes: [], variables: [], questions: [] };
const flags = (...heads: string[]) => heads.map((head) => column(head, 'yes_no'));
const rolesOf = (...guess: Parameters<typeof guessCodeColumns>) =>
  guessCodeColumns(...guess).map(({ role, name }) =>
    role === 'codes' ? `codes of ${name}` : role,
  );

test('columns of 0 and 1 called like codes belong to the question before them', () => {
  const sheet = [...flags('member'), column('Why?', 'question'), ...flags('Fares', 'works')];
  expect(rolesOf(sheet, { ...nothing, codes: ['fares'] })).toEqual([
    'yes_no',
    'question',
    'codes of Why?',
    'yes_no',
  ]);
  const later = [column('id', 'id'), ...flags('FARES')];
  expect(rolesOf(later, { ...nothing, codes: ['fares'] })).toEqual(['id', 'yes_no']);
  const known = { codes: ['fares'], variables: [], questions: ['Why?'] };
  expect(rolesOf(later, known)).toEqual(['id', 'codes of Why?']);
});

test('a run of them right behind a question are codes; a few, or those of known variables, are not', () => {
  const question = column('Why?', 'question');
  const run = flags('a', 'b', 'c', 'd');
  expect(
    rolesOf([question, ...run], nothing).filter((role) => role === 'codes of Why?'),
  ).toHaveLength(4);
  expect(rolesOf([question, ...run.slice(1)], nothing)).not.toContain('codes of Why?');
  expect(rolesOf([...run, question], nothing)).not.toContain('codes of Why?');
  expect(rolesOf([question, ...run], { ...nothing, variables: ['b'] })).not.toContain(
    'codes of Why?',
  );
});
