import { expect, test } from '@jest/globals';
import type { Report } from '@yellow-thread/contract';
import type { ChartArea } from 'chart.js';
import fc from 'fast-check';
import type { DrawnCodebook } from '../data/codebook.js';
import { chartKinds, chartOf, type ChartKind } from './chartConfig.js';
import { drawnAsSvg } from './drawnAsSvg.js';
import type { TextMeasure } from './svgContext.js';

/** Every letter as wide as most are at most: what has room with these has room with any font of the page. */
const measure: TextMeasure = {
  width: (text, font) => [...text].length * 0.58 * Number(/([\d.]+)px/u.exec(font)![1]),
  baseline: (font) => 0.35 * Number(/([\d.]+)px/u.exec(font)![1]),
};
const codebook: DrawnCodebook = { themes: [], codes: [], bundles: [], byId: new Map() };

const interval = (value: number, [down, up]: [number, number], least: number) =>
  [Math.max(least, value - down), Math.min(1, value + up)] as const;
const half = fc.tuple(
  fc.double({ min: 0, max: 1, noNaN: true }),
  fc.double({ min: 0, max: 1, noNaN: true }),
);
const cellsOf = (columns: number) =>
  fc.array(
    fc
      .tuple(fc.option(fc.double({ min: 0, max: 1, noNaN: true }), { freq: 5 }), half)
      .map(([share, ends]) => ({
        share,
        interval: share === null ? null : interval(share, ends, 0),
        base: { people: 40 },
      })),
    { minLength: columns, maxLength: columns },
  );
const names = fc.oneof(
  fc.string({ minLength: 1, maxLength: 120 }),
  fc.constantFrom('Fares', 'Ärger über & <lange> Wartezeiten an den Schaltern', 'x'.repeat(120)),
);
const tables = fc
  .tuple(fc.integer({ min: 2, max: 12 }), fc.integer({ min: 1, max: 60 }))
  .chain(([columns, rows]) =>
    fc.record({
      columns: fc.array(names, { minLength: columns, maxLength: columns }),
      rows: fc.array(
        fc.record({
          name: names,
          cells: cellsOf(columns),
          difference: fc.tuple(fc.double({ min: -1, max: 1, noNaN: true }), half),
        }),
        { minLength: rows, maxLength: rows },
      ),
    }),
  );

type Table = ReturnType<typeof tables.generate>['value'];
/** Draws a made-up table. @returns the SVG, and where its plot is */
function draw(kind: ChartKind, table: Table) {
  const rows = table.rows.map(({ name, cells, difference: [value, ends] }, r) => ({
    kind: 'code',
    id: String(r),
    name,
    cells,
    difference: { value, interval: interval(value, ends, -1), p: 0.03 },
  })) as unknown as Report['rows'];
  const columns = table.columns.map((label) => ({ label, under: null }));
  const report = { columns, rows, level: 0.95, decimals: 'fitting' } as unknown as Report;
  const picture = chartOf({
    kind,
    report,
    rows,
    codebook,
    pair: [0, 1] as [number, number],
    title: table.columns.join(' '),
    caption: table.columns.join(' '),
  });
  let plot: ChartArea | undefined;
  picture.config.plugins!.push({ id: 'plot', afterDraw: ({ chartArea }) => (plot = chartArea) });
  const svg = drawnAsSvg(picture, measure).replace(/<defs>.*<\/defs>/u, '');
  return { svg, plot: plot!, picture };
}

const NEAR = 1;
const isWithin = (value: number, from: number, to: number) =>
  value >= from - NEAR && value <= to + NEAR;

/** What of a drawing stands outside the picture, and which whisker ends outside the plot. */
function outsideOf(kind: ChartKind, table: Table): string[] {
  const { svg, plot, picture } = draw(kind, table);
  const outside: string[] = plot.right - plot.left > 200 ? [] : ['the plot is squeezed'];
  for (const [element, path, paint] of svg.matchAll(/<path d="([^"]*)" ([^>]*)\/>/gu)) {
    // what is clipped reaches no further than its clip
    if (paint!.includes('clip-path')) continue;
    const isWhisker = paint!.includes('stroke-width="1.2"');
    const [left, right] = isWhisker ? [plot.left, plot.right] : [0, picture.width];
    const ends = path!.replaceAll(/A(?:\S+ ){5}/gu, 'L').matchAll(/(-?[\d.]+) (-?[\d.]+)/gu);
    for (const [, x, y] of ends)
      if (!isWithin(Number(x), left, right) || !isWithin(Number(y), 0, picture.height))
        outside.push(element);
  }
  for (const [element, attributes, text] of svg.matchAll(/<text ([^>]*)>([^<]*)</gu)) {
    // upright names have a band of their own above the plot
    if (attributes!.includes('transform')) continue;
    const { x, y, font, anchor } =
      /x="(?<x>[^"]*)" y="(?<y>[^"]*)" style="font: (?<font>[^"]*)" fill="[^"]*"(?: text-anchor="(?<anchor>\w+)")?/u.exec(
        attributes!,
      )!.groups!;
    const width = measure.width(text!.replaceAll(/&\w+;/gu, '&'), font!);
    const left = Number(x) - width * (anchor === 'end' ? 1 : anchor === 'middle' ? 0.5 : 0);
    if (
      !isWithin(left, 0, picture.width) ||
      !isWithin(left + width, 0, picture.width) ||
      !isWithin(Number(y), 0, picture.height)
    )
      outside.push(element);
  }
  return outside;
}

for (const kind of Object.keys(chartKinds) as ChartKind[])
  test(`nothing stands outside the picture, no mark outside the plot: ${chartKinds[kind]}`, () => {
    fc.assert(
      fc.property(tables, (table) => {
        expect(outsideOf(kind, table)).toEqual([]);
      }),
      { numRuns: 40, endOnFailure: true },
    );
  });
