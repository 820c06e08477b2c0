import { columnName } from '@yellow-thread/core/report';
import { CategoryScale, Chart } from 'chart.js';
import { MatrixController, MatrixElement } from 'chartjs-chart-matrix';
import { asPercent } from '../lib/numbers.js';
import {
  FONT,
  FOOT,
  framed,
  HEAD,
  LINE,
  nameAxis,
  namedTicks,
  WIDTH,
  type ChartPicture,
  type ChartTable,
} from './chartFrame.js';
import { PAPER, printedLook } from './chartLook.js';
import { heatGridTexts } from './chartTexts.js';

Chart.register(CategoryScale, MatrixController, MatrixElement);

/** With more columns than this their names stand upright, where they would have no room side by side. */
const MOST_SIDE_BY_SIDE = 8;
const ROOM_OF_NAMES = 220;
const LETTER = 7.5;
const MOST_UPRIGHT = 26;

const shortened = (name: string, most: number): string =>
  name.length > most ? `${name.slice(0, most - 1).trimEnd()}…` : name;

/** A name in lines of at most so many letters. */
function inLines(name: string, most: number): string[] {
  const lines: string[] = [];
  for (const word of name.split(/\s+/u)) {
    const joined = `${lines.at(-1)} ${word}`;
    if (lines.length > 0 && joined.length <= most) lines[lines.length - 1] = joined;
    else lines.push(shortened(word, most));
  }
  return lines;
}

/** Shares as the depth of a row's ink, by row and column. */
export function heat(input: ChartTable): ChartPicture {
  const { report, rows, codebook } = input;
  const { columns } = report;
  const isWide = columns.length > MOST_SIDE_BY_SIDE;
  const letters = Math.floor((WIDTH - ROOM_OF_NAMES) / columns.length / LETTER);
  const names = columns.map((column) =>
    isWide ? [shortened(columnName(column), MOST_UPRIGHT)] : inLines(columnName(column), letters),
  );
  const heads = isWide
    ? MOST_UPRIGHT * LETTER
    : LINE * Math.max(...names.map(({ length }) => length));
  const picture = framed(input, HEAD + FOOT + 24 + heads + rows.length * 26);
  const { config } = picture;
  const cells = rows.flatMap((row, r) =>
    row.cells.map((cell, c) => ({ x: String(c), y: String(r), r, cell })),
  );
  const most = Math.max(...cells.map(({ cell }) => cell.share ?? 0), 0.01);
  config.type = 'matrix';
  config.data = {
    datasets: [
      {
        label: heatGridTexts.share,
        // the plugin takes places by name: numbers, since a code that is in a bundle too stands there twice
        data: cells.map(({ x, y }) => ({ x, y })) as unknown as { x: number; y: number }[],
        backgroundColor: ({ dataIndex }: { dataIndex: number }) => {
          const one = cells[dataIndex];
          if (!one) return 'transparent';
          const depth = Math.round(200 * ((one.cell.share ?? 0) / most));
          return `${printedLook(rows[one.r]!, codebook).ink}${depth.toString(16).padStart(2, '0')}`;
        },
        borderColor: PAPER.rule,
        borderWidth: 1,
        width: ({ chart }: { chart: Chart }) => (chart.chartArea?.width ?? 0) / columns.length - 2,
        height: ({ chart }: { chart: Chart }) => (chart.chartArea?.height ?? 0) / rows.length - 2,
      },
    ],
  };
  config.options = {
    ...config.options,
    scales: {
      x: {
        type: 'category',
        labels: columns.map((_, c) => String(c)),
        position: 'top',
        ticks: {
          ...nameAxis,
          // upright names are set beside their places, not over them
          ...(isWide ? { minRotation: 90, labelOffset: LINE } : { maxRotation: 0 }),
          callback: (c) => names[Number(c)]!,
        },
        offset: true,
        grid: { display: false },
      },
      y: {
        type: 'category',
        labels: rows.map((_, r) => String(r)),
        // the plugin turns this axis around, which by names runs from the top already
        reverse: false,
        ticks: namedTicks(
          rows.map(({ name }) => name),
          ROOM_OF_NAMES,
        ),
        offset: true,
        grid: { display: false },
      },
    },
    plugins: { ...config.options?.plugins, legend: { display: false } },
  };
  config.plugins!.push({
    id: 'figures',
    afterDatasetsDraw(chart) {
      const { ctx } = chart;
      ctx.save();
      ctx.font = `${isWide ? 10.5 : 12}px ${FONT}`;
      ctx.textAlign = 'center';
      ctx.textBaseline = 'middle';
      chart.getDatasetMeta(0).data.forEach((element, i) => {
        const { share, base: of } = cells[i]!.cell;
        const { x, y } = (
          element as unknown as { getCenterPoint: () => { x: number; y: number } }
        ).getCenterPoint();
        ctx.fillStyle = (share ?? 0) / most > 0.85 ? PAPER.ground : PAPER.ink;
        ctx.fillText(share === null ? '–' : asPercent(share, of.people, report.decimals), x, y);
      });
      ctx.restore();
    },
  });
  return picture;
}
