import { INKS, STITCHES, type Stitch } from '@yellow-thread/core/codebook';
import type { DrawnCodebook } from '../data/codebook.js';
import { stitchDrawing, type Look } from '../lib/stitches.js';
import { SvgContext } from './svgContext.js';

/** A chart is a picture on white, for the page as for the document: inks are those of paper. */
export const PAPER = { ground: '#ffffff', ink: '#23211c', soft: '#655f53', rule: '#e3dfd4' };

const isStitch = (name: string): name is Stitch => STITCHES.some((stitch) => stitch === name);

/** How a row is drawn on paper: as its theme is. */
export function printedLook(row: { kind: string; id: string }, codebook: DrawnCodebook): Look {
  const themeId = row.kind === 'theme' ? row.id : codebook.byId.get(row.id)?.themeId;
  const theme = codebook.themes.find(({ id }) => id === themeId);
  return theme && isStitch(theme.stitch)
    ? { ink: theme.ink, stitch: theme.stitch }
    : { ink: PAPER.soft, stitch: 'running' };
}

/** How the n-th column is drawn where several stand side by side. */
export const columnLook = (place: number): Look => ({
  ink: INKS[place % INKS.length]!,
  stitch: STITCHES[place % STITCHES.length]!,
});

const TILE = { width: 12, height: 6 };
const FINE = 2;

/** A stitch on a pale ground of its ink, to fill bars with; on a canvas it is drawn twice as fine. */
export function stitchPattern(
  context: CanvasRenderingContext2D | SvgContext,
  { ink, stitch }: Look,
) {
  if (context instanceof SvgContext) return context.stitchFill({ ink, stitch }, TILE);
  const tile = document.createElement('canvas');
  tile.width = TILE.width * FINE;
  tile.height = TILE.height * FINE;
  const brush = tile.getContext('2d')!;
  brush.scale(FINE, FINE);
  brush.fillStyle = `${ink}2e`;
  brush.fillRect(0, 0, TILE.width, TILE.height);
  brush.strokeStyle = ink;
  brush.lineCap = 'round';
  brush.lineWidth = stitch === 'dots' ? 2.4 : 1.3;
  brush.stroke(new Path2D(stitchDrawing(stitch)));
  const pattern = context.createPattern(tile, 'repeat');
  pattern?.setTransform(new DOMMatrix().scale(1 / FINE));
  return pattern ?? ink;
}
