import { columnName } from '@yellow-thread/core/report';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  ScatterController,
  type Plugin,
  type ScriptableContext,
} from 'chart.js';
import { asPercent, asPoints } from '../lib/numbers.js';
import {
  clipped,
  FONT,
  FOOT,
  framed,
  HEAD,
  heightOfKey,
  LINE,
  namedTicks,
  percentAxis,
  whiskers,
  type ChartPicture,
  type ChartTable,
} from './chartFrame.js';
import { columnLook, PAPER, printedLook, stitchPattern } from './chartLook.js';
import { correspondenceMap } from './correspondenceMap.js';
import { heat } from './heatGrid.js';
import { chartConfigTexts } from './chartTexts.js';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  ScatterController,
);

export const chartKinds = {
  bars: chartConfigTexts.barsIntervals,
  stacked: chartConfigTexts.sharesAllMentionsStacked,
  slope: chartConfigTexts.slopeBetweenTwoColumns,
  differences: chartConfigTexts.differencesTwoColumns,
  heat: chartConfigTexts.heatGrid,
  map: chartConfigTexts.map,
} as const;
export type ChartKind = keyof typeof chartKinds;
export const CHART_KINDS = Object.keys(chartKinds) as [ChartKind, ...ChartKind[]];

/** What a chart shows, and how. */
export interface ChartInput extends ChartTable {
  kind: ChartKind;
  /** Places of the two columns that are set against each other. */
  pair: [number, number];
}

/** A chart of a table, with everything in it, however long it is. */
export function chartOf(input: ChartInput): ChartPicture {
  const { kind } = input;
  const draw = { bars, stacked, slope, differences, heat, map: correspondenceMap }[kind];
  return draw(input);
}

const ROOM = 20;
/** What the names of rows and columns may take of a picture’s width, in pixels. */
const ROOM_OF_NAMES = 300;

function bars(input: ChartInput): ChartPicture {
  const { report, rows, codebook } = input;
  const { columns } = report;
  const several = columns.length > 1;
  const thick = several ? 11 : 14;
  // an interval may reach further than every bar
  const widest = Math.max(
    ...rows.flatMap(({ cells }) => cells.map(({ interval, share }) => interval?.[1] ?? share ?? 0)),
    0.05,
  );
  const picture = framed(
    input,
    HEAD +
      FOOT +
      40 +
      rows.length * (columns.length * thick + 12) +
      (several ? heightOfKey(columns.length) : 0),
  );
  const { config } = picture;
  config.data = {
    labels: rows.map(({ name }) => name),
    datasets: columns.map((column, c) => ({
      label: columnName(column),
      data: rows.map((row) => 100 * (row.cells[c]!.share ?? 0)),
      backgroundColor: ({ chart, dataIndex }: ScriptableContext<'bar'>) =>
        stitchPattern(
          chart.ctx,
          several ? columnLook(c) : printedLook(rows[dataIndex] ?? rows[0]!, codebook),
        ),
      borderColor: ({ dataIndex }: ScriptableContext<'bar'>) =>
        (several ? columnLook(c) : printedLook(rows[dataIndex] ?? rows[0]!, codebook)).ink,
      borderWidth: 1,
      barThickness: thick - 2,
    })),
  };
  config.options = {
    ...config.options,
    indexAxis: 'y',
    scales: {
      x: {
        beginAtZero: true,
        max: Math.min(100, 5 * Math.ceil(20 * widest)),
        ticks: percentAxis,
        grid: { color: PAPER.rule },
      },
      y: {
        ticks: namedTicks(
          rows.map(({ name }) => name),
          ROOM_OF_NAMES,
        ),
        grid: { display: false },
      },
    },
    plugins: {
      ...config.options?.plugins,
      legend: { ...config.options?.plugins?.legend, display: several },
    },
  };
  config.plugins!.push(whiskers(columns.map((_, c) => rows.map((row) => row.cells[c]!.interval))));
  return picture;
}

function stacked(input: ChartInput): ChartPicture {
  const { report, rows, codebook } = input;
  const picture = framed(
    input,
    HEAD + FOOT + 70 + report.columns.length * 40 + heightOfKey(rows.length),
  );
  const { config } = picture;
  config.data = {
    labels: report.columns.map(columnName),
    datasets: rows.map((row) => ({
      label: row.name,
      data: row.cells.map(({ share }) => 100 * (share ?? 0)),
      backgroundColor: ({ chart }: ScriptableContext<'bar'>) =>
        stitchPattern(chart.ctx, printedLook(row, codebook)),
      borderColor: printedLook(row, codebook).ink,
      borderWidth: 1,
      barThickness: 24,
    })),
  };
  config.options = {
    ...config.options,
    indexAxis: 'y',
    scales: {
      x: { stacked: true, max: 100, ticks: percentAxis, grid: { color: PAPER.rule } },
      y: {
        stacked: true,
        ticks: namedTicks(report.columns.map(columnName), ROOM_OF_NAMES),
        grid: { display: false },
      },
    },
  };
  return picture;
}

/** Names at the right end of the lines of a slope chart, moved apart where they would overlap. */
const endNames = (names: { text: string; ink: string }[]): Plugin => ({
  id: 'endNames',
  afterDatasetsDraw(chart) {
    const { ctx } = chart;
    ctx.save();
    ctx.font = `12px ${FONT}`;
    ctx.textBaseline = 'middle';
    const places = names
      .map((name, d) => ({ ...name, at: chart.getDatasetMeta(d).data[1]! }))
      .sort((x, y) => x.at.y - y.at.y);
    const heights = places.map(({ at }) => at.y);
    for (let i = 1; i < heights.length; i++)
      heights[i] = Math.max(heights[i]!, heights[i - 1]! + LINE);
    // what was pushed below the axis moves up, and takes along what is in its way
    let most = chart.chartArea.bottom;
    for (let i = heights.length - 1; i >= 0; i--) {
      heights[i] = Math.min(heights[i]!, most);
      most = heights[i]! - LINE;
    }
    places.forEach(({ text, ink, at }, i) => {
      ctx.fillStyle = ink;
      ctx.fillText(clipped(ctx, text, chart.width - at.x - 14), at.x + 10, heights[i]!);
    });
    ctx.restore();
  },
});

/** Dashes stand for stitches where a line is too thin to be sewn. */
const DASHES = [
  [],
  [6, 3],
  [2, 3],
  [8, 3, 2, 3],
  [12, 4],
  [4, 2, 4, 6],
  [1, 2],
  [10, 2, 2, 2, 2, 2],
];

function slope(input: ChartInput): ChartPicture {
  const { report, rows, codebook, pair } = input;
  const picture = framed(input, Math.max(460, HEAD + FOOT + rows.length * ROOM));
  const { config } = picture;
  config.type = 'line';
  config.data = {
    labels: pair.map((place) => columnName(report.columns[place]!)),
    datasets: rows.map((row, r) => ({
      label: row.name,
      data: pair.map((place) => 100 * (row.cells[place]!.share ?? 0)),
      borderColor: printedLook(row, codebook).ink,
      backgroundColor: printedLook(row, codebook).ink,
      borderDash: DASHES[r % DASHES.length]!,
      borderWidth: 2,
      pointRadius: 4,
      // or Chart.js draws into a Path2D, which cannot be read
      segment: {},
    })),
  };
  config.options = {
    ...config.options,
    layout: { padding: { left: 16, right: 300, top: HEAD - 24, bottom: FOOT } },
    scales: {
      x: {
        ticks: {
          ...namedTicks(
            pair.map((place) => columnName(report.columns[place]!)),
            ROOM_OF_NAMES,
          ),
          maxRotation: 0,
        },
        grid: { color: PAPER.rule },
      },
      y: { beginAtZero: true, ticks: percentAxis, grid: { color: PAPER.rule } },
    },
    plugins: { ...config.options?.plugins, legend: { display: false } },
  };
  config.plugins!.push(
    endNames(
      rows.map((row) => {
        const [from, to] = pair.map((place) => row.cells[place]!);
        const said = [from!, to!].map(({ share, base: { people } }) =>
          share === null ? '–' : asPercent(share, people, report.decimals),
        );
        return { text: `${row.name} ${said.join(' → ')}`, ink: printedLook(row, codebook).ink };
      }),
    ),
  );
  return picture;
}

/** From end to end of the widest interval, in steps of ten points, with zero in it. */
function axisOfDifferences(
  differences: readonly { value: number; interval: readonly [number, number] }[],
): { min: number; max: number } {
  const ends = differences.flatMap(({ value, interval }) => [value, ...interval]);
  return {
    min: 10 * Math.floor(10 * Math.min(0, ...ends)),
    max: 10 * Math.ceil(10 * Math.max(0.05, ...ends)),
  };
}

function differences(input: ChartInput): ChartPicture {
  const { codebook, report } = input;
  const rows = input.rows.filter(({ difference }) => difference);
  const picture = framed(input, HEAD + FOOT + 60 + rows.length * (ROOM + 4));
  const { config } = picture;
  const labels = rows.map(
    (row) => `${row.name}  ${asPoints(row.difference!.value, report.decimals)}`,
  );
  config.data = {
    labels,
    datasets: [
      {
        label: chartConfigTexts.difference,
        // a bar of no thickness keeps its place for the point and the interval
        data: rows.map((row) => 100 * row.difference!.value),
        barThickness: 1,
        backgroundColor: 'transparent',
      },
    ],
  };
  config.options = {
    ...config.options,
    indexAxis: 'y',
    scales: {
      x: {
        ...axisOfDifferences(rows.map(({ difference }) => difference!)),
        ticks: { ...percentAxis, callback: (value) => String(value) },
        title: {
          display: true,
          text: chartConfigTexts.percentagePoints,
          color: PAPER.soft,
          font: { family: FONT },
        },
        grid: { color: ({ tick }) => (tick.value === 0 ? PAPER.ink : PAPER.rule) },
      },
      y: { ticks: namedTicks(labels, ROOM_OF_NAMES), grid: { color: PAPER.rule } },
    },
    plugins: { ...config.options?.plugins, legend: { display: false } },
  };
  config.plugins!.push(whiskers([rows.map((row) => row.difference!.interval)]), {
    id: 'dots',
    afterDatasetsDraw(chart) {
      const { ctx } = chart;
      ctx.save();
      chart.getDatasetMeta(0).data.forEach(({ x, y }, i) => {
        const { ink } = printedLook(rows[i]!, codebook);
        // a filled knot where it is beyond chance, a hollow one where it is not
        const isSure = rows[i]!.difference!.p < 1 - input.report.level;
        ctx.beginPath();
        ctx.arc(x, y, 5, 0, 2 * Math.PI);
        ctx.fillStyle = isSure ? ink : PAPER.ground;
        ctx.strokeStyle = ink;
        ctx.lineWidth = 1.6;
        ctx.fill();
        ctx.stroke();
      });
      ctx.restore();
    },
  });
  return picture;
}
