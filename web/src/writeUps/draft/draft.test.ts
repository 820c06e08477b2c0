import { expect, test } from '@jest/globals';
import { maskDetails } from '@yellow-thread/core/text';
import { makeDraft } from './draft.js';
import type { DraftAgreement, DraftTable } from './draftInput.js';
import type { DraftNode } from './draftNode.js';
import { figureText, type FigureTable } from '@yellow-thread/core/report';

const format = {
  count: String,
  percent: (share: number, base: number) => `${(100 * share).toFixed(base < 100 ? 0 : 1)}%`,
};
const cell = (people: number, base: number, exceeds: string[] = []) => ({
  people,
  share: people / base,
  interval: [0.1, 0.3] as const,
  base: { people: base },
  undecided: 0,
  estimated: null,
  exceeds,
  rest: null,
});
const column = (key: string, settled: number) => ({
  key,
  label: key,
  under: null,
  settled,
  counted: settled,
  answered: settled + 2,
  asked: settled + 3,
});
const table: FigureTable = {
  columns: [column('total', 200), column('Tye', 150), column('Hask', 20)],
  rows: [
    {
      kind: 'theme',
      id: 't',
      parentId: null,
      name: 'Price',
      cells: [cell(60, 200), cell(55, 150, ['B']), cell(1, 20)],
    },
    {
      kind: 'code',
      id: 'a',
      parentId: 't',
      name: 'Fares',
      cells: [cell(40, 200), cell(30, 150), cell(1, 20)],
    },
    {
      kind: 'code',
      id: 'b',
      parentId: 't',
      name: 'Cars',
      cells: [cell(25, 200), cell(25, 150), cell(4, 20, ['A'])],
    },
    {
      kind: 'code',
      id: 'c',
      parentId: null,
      name: 'Crew',
      cells: [cell(2, 200), cell(2, 150), cell(0, 20)],
    },
  ],
};
const draftTable: DraftTable = {
  id: 'q1',
  label: 'Improve',
  wording: 'What would you improve?',
  across: 'Home',
  counts: 'settled',
  isFinished: false,
  isRandom: true,
  assisted: 0,
  closed: [],
  counting: 'Counts the 200 answers that are settled by hand, of 202.',
  base: 'people with a settled answer',
  level: 0.95,
  weighted: false,
  test: 'two-proportion z test, Holm-corrected, 95%',
  letters: [null, 'A', 'B'],
  table,
  origins: { hand: 60, accepted: 3, bulk: 7, import: 0, words: 0, notCounted: 1 },
  checked: [],
  quotes: [
    { codeId: 'a', text: 'too dear', who: 'Tye, 35–44' },
    { codeId: 'x', text: 'no', who: '' },
  ],
};
const wordsOf = (node: DraftNode): string =>
  node.text ??
  (node.type === 'figure'
    ? String(node.attrs!['shown'])
    : (node.content ?? []).map(wordsOf).join(''));
const draft = (over: Partial<DraftTable> = {}, agreement: DraftAgreement[] = []) =>
  makeDraft({
    study: 'Ferry',
    purpose: '',
    coders: 1,
    agreement,
    tables: [{ ...draftTable, ...over }],
    format,
  });

test('a draft says the top themes with bases, what they are made of, differences with their test, quotes and limits', () => {
  const paragraphs = draft().content!.map(wordsOf);
  expect(paragraphs).toEqual(
    expect.arrayContaining([
      'Counts the 200 answers that are settled by hand, of 202. 203 people were asked and 202 answered.',
      'Price is mentioned by 30.0% of people with a settled answer (60 of 200; 95% interval 10.0% to 30.0%). It consists of Fares (20.0%) and Cars (12.5%).',
      'By Home: Tye mentioned it significantly more often (36.7%) than Hask (5%). (two-proportion z test, Holm-corrected, 95%.)',
      '“too dear” (Tye, 35–44)',
      'Other significant differences: Cars: Hask mentioned it significantly more often (20%) than Tye (16.7%). (two-proportion z test, Holm-corrected, 95%.)',
    ]),
  );
  const limits = paragraphs.at(-1)!;
  expect(limits).toContain('2 of 202 answers are not settled');
  expect(limits).toContain('fewer than 30 answers in Hask');
  expect(limits).toContain('accepted in bulk has not been spot-checked');
  expect(paragraphs.join(' ')).not.toContain('“no”');
});

test('a draft is no more certain than its figures: nothing beyond chance, few people, nothing at all', () => {
  const none = table.rows.map((row) => ({
    ...row,
    cells: row.cells.map((one) => ({ ...one, exceeds: [] })),
  }));
  const said = (over: Partial<DraftTable>) => wordsOf(draft(over));
  expect(said({ table: { ...table, rows: none } })).toContain(
    'No row differs significantly by Home',
  );
  expect(said({ table: { ...table, rows: none }, test: null })).not.toContain('significant');
  const few = { ...table, rows: [{ ...table.rows[0]!, cells: [cell(3, 9)] }] };
  expect(said({ table: few })).toContain(
    '(3 of 9; 95% interval 10% to 30%), which can be far off on so few people.',
  );
  expect(said({ table: { ...table, rows: [] } })).toContain('Nobody mentions a code yet.');
});

test('a draft follows the rule of its table: estimates are none of counts, and what is undecided is “at least”', () => {
  const of = (
    over: Partial<DraftTable>,
    cells: Partial<FigureTable['rows'][number]['cells'][number]>,
  ) =>
    wordsOf(
      draft({
        base: 'people who answered',
        test: null,
        ...over,
        table: {
          ...table,
          rows: [{ ...table.rows[0]!, cells: [{ ...cell(60, 202), share: 0.3, ...cells }] }],
        },
      }),
    );
  const estimated = of({ counts: 'estimated' }, { estimated: { sampled: 98 } });
  expect(estimated).toContain(
    'Price is mentioned by an estimated 30% of people who answered (95% interval 10% to 30%).',
  );
  expect(estimated).not.toContain('60 of');
  const undecided = of({ counts: 'decided' }, { undecided: 12 });
  expect(undecided).toContain(
    'Price is mentioned by at least 30.0% of people who answered (60 of 202; for 12 it is not decided).',
  );
  expect(undecided).toContain('figures with “at least” can still rise');
  // of answers that somebody chose an interval would say nothing
  const chosen = of({ counts: 'settled', isRandom: false }, {});
  expect(chosen).toContain('(60 of 202).');
  expect(chosen).toContain('were not drawn at random');
  const closed = of({ closed: [{ code: 'Crew', how: 'search', expected: 0 }] }, {});
  expect(closed).toContain(
    'Crew had no model: answers were searched for it, and the rest counts as not mentioning it.',
  );
});

test('a draft says what a second reading showed, and what it does not show', () => {
  const reading: DraftAgreement = {
    label: 'Improve',
    reader: 'Wren',
    firstCoders: ['Ada'],
    drawnFrom: 200,
    drawn: 60,
    sameSets: { count: 45, n: 60 },
    kappa: 0.781,
    interval: [0.7, 1.02],
    alphaOfSets: 0.74,
    low: ['Cars', 'Crew'],
  };
  const said = (one: DraftAgreement) => wordsOf(draft({}, [one]));
  const byAnother = said(reading);
  expect(byAnother).toContain(
    'Improve: 60 of 200 settled answers, drawn at random, were coded again by Wren without the first codes in view; 45 (75%) got exactly the same codes both times; Cohen’s kappa over all codes is 0.78 (95% interval 0.70 to 1.00) and Krippendorff’s alpha of the sets of codes (MASI distance) is 0.74.',
  );
  expect(byAnother).toContain('agree too little on Cars and Crew to rest a finding on them alone');
  expect(byAnother).not.toContain('no second reading');
  expect(said({ ...reading, drawn: 90 })).toContain(
    '60 of 200 settled answers, the first coded of 90 drawn at random (ended early, so no longer a random sample), were coded again',
  );
  const byOneself = said({ ...reading, reader: 'Ada', low: [], kappa: null, alphaOfSets: null });
  expect(byOneself).toContain('coded again by the same person');
  expect(byOneself).toContain('got exactly the same codes both times.');
  expect(byOneself).toContain('not how far two people agree');
});

test('a figure follows its table, and says when its place is gone', () => {
  const ref = { row: 'a', column: 'Tye' } as const;
  const shown = (['share', 'people', 'base', 'interval'] as const).map((what) =>
    figureText(table, { ...ref, what }, format),
  );
  expect(shown).toEqual(['20.0%', '30', '150', '10.0% to 30.0%']);
  expect(figureText(table, { ...ref, row: 'gone', what: 'share' }, format)).toBeNull();
  expect(figureText(undefined, { ...ref, what: 'share' }, format)).toBeNull();
});

test('contact details and names are masked, and nothing else', () => {
  expect(
    maskDetails(
      'Ask Mrs Odell-Finch or Ann: ann.o@ferry.example, +44 20 7946 0018, www.x.example/a or @ann_o',
      ['ann'],
    ),
  ).toBe('Ask Mrs [name] or [name]: [e-mail], [number], [link] or [account]');
  const plain = 'The 8.15 on 12 May cost £24.50, the annex is at 3:30; Mr. smith? 2026-05-12';
  expect(maskDetails(plain, ['ann', ' '])).toBe(plain);
});
