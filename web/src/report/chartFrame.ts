import type { Report } from '@yellow-thread/contract';
import { Chart, type ChartConfiguration, type Plugin, type Scale } from 'chart.js';
import type { DrawnCodebook } from '../data/codebook.js';
import { PAPER } from './chartLook.js';

export interface ChartPicture {
  config: ChartConfiguration;
  width: number;
  height: number;
}

/** Rows of a table, and the words that go with their picture. */
export interface ChartTable {
  report: Report;
  rows: Report['rows'];
  codebook: DrawnCodebook;
  title: string;
  /** What the figures are out of, of whom, and when. */
  caption: string;
}

export const FONT = "'Figtree Variable', system-ui, sans-serif";
export const WIDTH = 920;
export const HEAD = 64;
export const FOOT = 34;
export const LINE = 14;
/** What a name in the key may take of the width: four have room side by side. */
const ROOM_OF_KEY = 170;
const KEYS_SIDE_BY_SIDE = 4;

/** How high the key of so many names is. */
export const heightOfKey = (names: number): number => Math.ceil(names / KEYS_SIDE_BY_SIDE) * 22;

/** Draws the ground, the title above and the caption below, so that the picture says what it is by itself. */
const frame = (title: string, caption: string): Plugin => ({
  id: 'frame',
  beforeDraw({ ctx, width, height }) {
    ctx.save();
    ctx.fillStyle = PAPER.ground;
    ctx.fillRect(0, 0, width, height);
    ctx.restore();
  },
  afterDraw({ ctx, width, height }) {
    ctx.save();
    ctx.textAlign = 'left';
    ctx.fillStyle = PAPER.ink;
    ctx.font = `600 15px ${FONT}`;
    ctx.fillText(clipped(ctx, title, width - 32), 16, 26);
    ctx.fillStyle = PAPER.soft;
    ctx.font = `12px ${FONT}`;
    ctx.fillText(clipped(ctx, caption, width - 32), 16, height - 14);
    ctx.restore();
  },
});

/** A text as far as there is room for it. */
export function clipped(ctx: CanvasRenderingContext2D, text: string, width: number): string {
  let shown = text;
  while (shown.length > 1 && ctx.measureText(shown).width > width)
    shown = `${shown.slice(0, -2).trimEnd()}…`;
  return shown;
}

/** Intervals as thin lines with ends, over bars or points that lie across. */
export const whiskers = (ends: (readonly [number, number] | null)[][]): Plugin => ({
  id: 'whiskers',
  afterDatasetsDraw(chart) {
    const { ctx } = chart;
    const scale = chart.scales['x']!;
    ctx.save();
    ctx.strokeStyle = PAPER.ink;
    ctx.lineWidth = 1.2;
    ends.forEach((some, d) =>
      chart.getDatasetMeta(d).data.forEach((element, i) => {
        const interval = some[i];
        if (!interval) return;
        const [low, high] = interval.map((end) => scale.getPixelForValue(100 * end));
        const { y } = element;
        ctx.beginPath();
        ctx.moveTo(low!, y);
        ctx.lineTo(high!, y);
        for (const x of [low!, high!]) {
          ctx.moveTo(x, y - 3);
          ctx.lineTo(x, y + 3);
        }
        ctx.stroke();
      }),
    );
    ctx.restore();
  },
});

export const percentAxis = {
  color: PAPER.soft,
  font: { family: FONT, size: 12 },
  callback: (value: string | number) => `${value}%`,
};
export const nameAxis = { color: PAPER.ink, font: { family: FONT, size: 13 }, autoSkip: false };

/** Ticks that say names, each as far as there is room for it. */
export const namedTicks = (names: readonly string[], room: number) => ({
  ...nameAxis,
  callback(this: Scale, value: string | number): string {
    const { ctx } = this.chart;
    ctx.save();
    ctx.font = `${nameAxis.font.size}px ${FONT}`;
    const name = clipped(ctx, names[Number(value)] ?? '', room);
    ctx.restore();
    return name;
  },
});

export function framed(
  { title, caption }: { title: string; caption: string },
  height: number,
): ChartPicture {
  return {
    width: WIDTH,
    height,
    config: {
      type: 'bar',
      data: { labels: [], datasets: [] },
      options: {
        responsive: false,
        animation: false,
        events: [],
        layout: { padding: { left: 16, right: 28, top: HEAD - 24, bottom: FOOT } },
        plugins: {
          legend: {
            position: 'top',
            align: 'start',
            labels: {
              color: PAPER.ink,
              font: { family: FONT, size: 12 },
              boxWidth: 26,
              boxHeight: 9,
              generateLabels: (chart) => {
                const { ctx } = chart;
                ctx.save();
                ctx.font = `12px ${FONT}`;
                const labels = Chart.defaults.plugins.legend.labels
                  .generateLabels(chart)
                  .map((label) => ({ ...label, text: clipped(ctx, label.text, ROOM_OF_KEY) }));
                ctx.restore();
                return labels;
              },
            },
          },
          tooltip: { enabled: false },
        },
      },
      plugins: [frame(title, caption)],
    },
  };
}
