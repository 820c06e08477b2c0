import { expect, test } from '@jest/globals';
import { reportSchema, type Report } from '@yellow-thread/contract';
import type { DrawnCodebook } from '../data/codebook.js';
import { chartOf, type ChartKind } from './chartConfig.js';

const base = { people: 200, weighted: 200, effective: 200 };
const cell = (share: number | null, interval: [number, number] | null = null) => ({
  people: 0,
  weighted: 0,
  mentions: 0,
  weightedMentions: 0,
  base,
  share,
  interval,
  undecided: 0,
  exceeds: [],
  rest: null,
  estimated: null,
});
const column = (label: string, letter: string | null) => ({
  key: label,
  label,
  letter,
  under: null,
  rule: null,
  asked: 200,
  answered: 200,
  settled: 200,
  counted: 200,
  countedWeighted: 200,
  countedEffective: 200,
});
const uuid = (n: number) => `0b6f0a60-0000-4000-8000-00000000000${n}`;
const row = (n: number, name: string, parent: number, cells: Report['rows'][number]['cells']) => ({
  kind: 'code' as const,
  id: uuid(n),
  parentId: uuid(parent),
  name,
  isAtLeast: false,
  cells,
  whole: null,
  difference: null,
});
// one code stands under its theme and under a bundle, as it does in a table
const report = reportSchema.parse({
  columns: [column('Total', null), column('Tye', 'A'), column('Hask', 'B')],
  rows: [
    {
      ...row(1, 'Fares', 7, [cell(0.25, [0.2, 0.31]), cell(0.3), cell(0.2)]),
      difference: { value: -0.104, interval: [-0.19, -0.01], test: 'z', p: 0.02 },
    },
    row(2, 'Crew', 7, [cell(0.1), cell(null), cell(0.05, [0.02, 0.42])]),
    row(1, 'Fares', 8, [cell(0.25), cell(0.3), cell(0.2)]),
  ],
  overlapping: [],
  origins: { hand: 1, accepted: 0, bulk: 0, import: 0, words: 0, notCounted: 0 },
  counts: 'decided',
  rules: [],
  isFinished: true,
  assisted: 0,
  byModel: 0,
  sample: { drawn: 0, read: 0, isAllSettled: false },
  closed: [],
  checked: [],
  weighted: false,
  base: 'answered',
  test: 'none',
  level: 0.95,
  against: 'each',
  decimals: 'fitting',
  notEstimated: null,
});
const codebook: DrawnCodebook = { themes: [], codes: [], bundles: [], byId: new Map() };
const chart = (kind: ChartKind, columns = report.columns) => {
  const places = columns.map((one) => report.columns.indexOf(one));
  const rows = report.rows.map((one) => ({ ...one, cells: places.map((at) => one.cells[at]!) }));
  const input = { kind, report: { ...report, columns, rows }, rows, codebook };
  return chartOf({ ...input, title: 'Fares', caption: 'n = 200', pair: [1, 2] });
};

test('bars are as long as the shares, and the longest interval has its room', () => {
  const { config } = chart('bars');
  expect(config.data).toMatchObject({
    labels: ['Fares', 'Crew', 'Fares'],
    datasets: [
      { label: 'Total', data: [25, 10, 25] },
      { label: 'Tye', data: [30, 0, 30] },
      { label: 'Hask', data: [20, 5, 20] },
    ],
  });
  expect(config.options).toMatchObject({
    scales: { x: { max: 45, beginAtZero: true } },
    plugins: { legend: { display: true } },
  });
  expect(chart('bars', report.columns.slice(0, 1)).config.options).toMatchObject({
    scales: { x: { max: 35 } },
    plugins: { legend: { display: false } },
  });
});

test('a slope goes between the two columns that were chosen, a stack through all', () => {
  expect(chart('slope').config.data).toMatchObject({
    labels: ['Tye', 'Hask'],
    datasets: [{ data: [30, 20] }, { data: [0, 5] }, { data: [30, 20] }],
  });
  expect(chart('stacked').config.data).toMatchObject({
    labels: ['Total', 'Tye', 'Hask'],
    datasets: [{ data: [25, 30, 20] }, { data: [10, 0, 5] }, { data: [25, 30, 20] }],
  });
});

test('differences are of the rows that have one, in percentage points', () => {
  expect(chart('differences').config.data).toMatchObject({
    labels: ['Fares  -10.4'],
    datasets: [{ data: [-10.4] }],
  });
});

test('in a heat grid every cell has a place of its own, also of a code that stands there twice', () => {
  const { config } = chart('heat');
  const cells = [0, 1, 2].flatMap((y) => [0, 1, 2].map((x) => ({ x: String(x), y: String(y) })));
  expect(config.data.datasets[0]!.data).toEqual(cells);
  expect(config.options!.scales).toMatchObject({
    x: { labels: ['0', '1', '2'] },
    y: { labels: ['0', '1', '2'] },
  });
  const ctx = { save: () => null, restore: () => null, measureText: () => ({ width: 20 }) };
  const scale = { chart: { ctx } };
  const named = (axis: 'x' | 'y') => {
    const { callback } = config.options!.scales![axis]!.ticks!;
    return [0, 1, 2].map((place): unknown => Reflect.apply(callback!, scale, [place, place, []]));
  };
  expect(named('x')).toEqual([['Total'], ['Tye'], ['Hask']]);
  expect(named('y')).toEqual(['Fares', 'Crew', 'Fares']);
});

test('a map has a point for each row and column, and both axes in one scale', () => {
  const columns = ['Tye', 'Hask', 'Carrow'].map((name) => ({
    ...report.columns[0]!,
    label: name,
    key: `=${name}`,
    rule: { is: 'stated' as const, variableId: 1, stated: true },
  }));
  const rows = [
    {
      ...report.rows[0]!,
      cells: [cell(0.6), cell(0.1), cell(0.2)].map((one) => ({
        ...report.rows[0]!.cells[0]!,
        ...one,
      })),
    },
    {
      ...report.rows[1]!,
      cells: [cell(0.1), cell(0.5), cell(0.2)].map((one) => ({
        ...report.rows[0]!.cells[0]!,
        ...one,
      })),
    },
    {
      ...report.rows[1]!,
      name: 'Nobody',
      cells: [cell(0), cell(0), cell(0)].map((one) => ({ ...report.rows[0]!.cells[0]!, ...one })),
    },
  ];
  const { config } = chartOf({
    kind: 'map',
    report: { ...report, columns, rows },
    rows,
    codebook,
    pair: [0, 1],
    title: '',
    caption: '',
  });
  // nobody’s row has no profile
  expect(config.data.datasets[0]!.data).toHaveLength(5);
  const { x, y } = config.options!.scales as Record<'x' | 'y', { min: number; max: number }>;
  const { width, height } = { width: 920 - 110, height: 640 - 64 - 34 - 90 };
  expect((x.max - x.min) / width).toBeCloseTo((y.max - y.min) / height, 12);
});
