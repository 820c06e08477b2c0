import { correspondenceAnalysis, type MappedProfile } from '@yellow-thread/core/statistics';
import { columnName } from '@yellow-thread/core/report';
import type { Report } from '@yellow-thread/contract';
import type { Plugin } from 'chart.js';
import { asCount, asPercent } from '../lib/numbers.js';
import {
  FONT,
  FOOT,
  framed,
  HEAD,
  WIDTH,
  type ChartPicture,
  type ChartTable,
} from './chartFrame.js';
import { PAPER, printedLook } from './chartLook.js';
import { correspondenceMapTexts as texts } from './chartTexts.js';

/** A map of fewer columns has no second axis. */
export const FEWEST_COLUMNS = 3;
const HEIGHT = 640;
/** What axes and their titles take of the picture. */
const AROUND = { width: 110, height: HEAD + FOOT + 90 };
/** A point of which the two axes show less than this of its distance from the middle is badly shown. */
const WELL_SHOWN = 0.5;

/** A row or column as a point of the map. */
interface MapPoint {
  name: string;
  ink: string;
  isColumn: boolean;
  x: number;
  y: number;
}

/** Places of the columns that a map is made of: those that respondents are divided into. */
export const mappedColumns = ({ columns }: Report): number[] =>
  columns.flatMap((column, place) => (column.rule && column.key !== 'missing' ? [place] : []));

/**
 * Rows and columns of a table as points: rows that are mentioned by the same columns more than by others stand near each
 * other, and in their direction (symmetric map of a correspondence analysis).
 */
export function correspondenceMap(input: ChartTable): ChartPicture {
  const { report, codebook } = input;
  // themes hold codes: both at once would count twice
  const isOfCodes = input.rows.some(({ kind }) => kind === 'code');
  const rows = input.rows.filter(({ kind }) => !isOfCodes || kind === 'code');
  const places = mappedColumns(report);
  const { inertias, totalInertia, ...found } = correspondenceAnalysis(
    rows.map(({ cells }) =>
      places.map((place) => (cells[place]!.share ?? 0) * cells[place]!.base.weighted),
    ),
  );
  const at = (
    profile: MappedProfile | null,
    name: string,
  ): Pick<MapPoint, 'name' | 'x' | 'y'>[] => {
    if (!profile) return [];
    const [x = 0, y = 0] = profile.principal;
    const isBad = (profile.cos2[0] ?? 0) + (profile.cos2[1] ?? 0) < WELL_SHOWN;
    return [{ name: isBad ? `${name} °` : name, x, y }];
  };
  const points: MapPoint[] = [
    ...found.columns.flatMap((profile, c) => {
      const column = report.columns[places[c]!]!;
      const name = texts.column(columnName(column), asCount(column.counted));
      return at(profile, name).map((point) => ({ ...point, ink: PAPER.ink, isColumn: true }));
    }),
    ...found.rows.flatMap((profile, r) => {
      const { ink } = printedLook(rows[r]!, codebook);
      return at(profile, rows[r]!.name).map((point) => ({ ...point, ink, isColumn: false }));
    }),
  ];
  const picture = framed(input, HEIGHT);
  const { config } = picture;
  config.type = 'scatter';
  config.data = {
    datasets: [
      {
        label: texts.points,
        data: points.map(({ x, y }) => ({ x, y })),
        pointStyle: points.map(({ isColumn }) => (isColumn ? 'rect' : 'circle')),
        pointRadius: points.map(({ isColumn }) => (isColumn ? 6 : 4)),
        pointBackgroundColor: points.map(({ isColumn, ink }) => (isColumn ? PAPER.ground : ink)),
        pointBorderColor: points.map(({ ink }) => ink),
        pointBorderWidth: 1.5,
      },
    ],
  };
  const shareOf = (axis: number) =>
    totalInertia > 0 ? asPercent((inertias[axis] ?? 0) / totalInertia, 100) : '–';
  const { x, y } = scalesOf(points);
  const axis = (title: string | string[], range: { min: number; max: number }) => ({
    type: 'linear' as const,
    ...range,
    title: { display: true, text: title, color: PAPER.soft, font: { family: FONT, size: 12 } },
    ticks: { display: false },
    grid: {
      color: ({ tick }: { tick: { value: number } }) =>
        tick.value === 0 ? PAPER.soft : 'transparent',
    },
    border: { display: false },
  });
  config.options = {
    ...config.options,
    scales: {
      x: axis([texts.axis(1, shareOf(0)), texts.about], x),
      y: axis(texts.axis(2, shareOf(1)), y),
    },
    plugins: { ...config.options?.plugins, legend: { display: false } },
  };
  config.plugins!.push(namesBeside(points));
  return picture;
}

/** Both axes in one scale: distances across and along are the same. */
function scalesOf(points: readonly MapPoint[]) {
  const spanOf = (places: number[], room: number) => ({
    min: Math.min(0, ...places),
    max: Math.max(0, ...places),
    room,
  });
  const across = spanOf(
    points.map(({ x }) => x),
    WIDTH - AROUND.width,
  );
  const along = spanOf(
    points.map(({ y }) => y),
    HEIGHT - AROUND.height,
  );
  // names stand beside the outermost points
  const unit = Math.max(
    ...[across, along].map(({ min, max, room }) => (ROOM_TO_NAMES * (max - min)) / room),
    1e-6,
  );
  const around = ({ min, max, room }: typeof across) => ({
    min: (min + max - unit * room) / 2,
    max: (min + max + unit * room) / 2,
  });
  return { x: around(across), y: around(along) };
}

const ROOM_TO_NAMES = 1.35;
const SIZE = 12;
/** Half of a point, and how far from its middle a name begins. */
const MARK = 5;
const BESIDE = 11;

/** Names beside their points, where they cover no other as far as there is room. */
const namesBeside = (points: readonly MapPoint[]): Plugin => ({
  id: 'namesBeside',
  afterDatasetsDraw(chart) {
    const { ctx } = chart;
    const { data } = chart.getDatasetMeta(0);
    // no name covers a point
    const taken = data.map(({ x, y }) => ({ left: x - MARK, right: x + MARK, y }));
    ctx.save();
    ctx.textBaseline = 'middle';
    ctx.textAlign = 'left';
    data.forEach((element, i) => {
      const { name, ink, isColumn } = points[i]!;
      ctx.font = `${isColumn ? '600 ' : ''}${SIZE}px ${FONT}`;
      const { width } = ctx.measureText(name);
      const ways = [0, -SIZE, SIZE, -2 * SIZE, 2 * SIZE, -3 * SIZE, 3 * SIZE].flatMap((up) => [
        { left: element.x + BESIDE, y: element.y + up },
        { left: element.x - BESIDE - width, y: element.y + up },
      ]);
      const isFree = ({ left, y }: { left: number; y: number }) =>
        left > 4 &&
        left + width < chart.width - 4 &&
        taken.every(
          (other) =>
            left > other.right + 4 ||
            left + width < other.left - 4 ||
            Math.abs(y - other.y) >= SIZE,
        );
      const way = ways.find(isFree) ?? ways[0]!;
      taken.push({ left: way.left, right: way.left + width, y: way.y });
      ctx.fillStyle = ink;
      ctx.fillText(name, way.left, way.y);
    });
    ctx.restore();
  },
});
