import type { Stitch } from '@yellow-thread/core/codebook';

/** The drawing of each stitch in a tile of 12 × 6. */
const drawings: Record<Stitch, string> = {
  running: 'M1 3h7',
  back: 'M0 3h12',
  dots: 'M2 3h.01M8 3h.01',
  cross: 'M1 1l4 4M5 1l-4 4M7 1l4 4M11 1l-4 4',
  zigzag: 'M0 5l3-4 3 4 3-4 3 4',
  ladder: 'M0 1h12M0 5h12M3 1v4M9 1v4',
  chain: 'M1 3c0-2.4 5-2.4 5 0s-5 2.4-5 0zM7 3c0-2.4 5-2.4 5 0s-5 2.4-5 0z',
  feather: 'M0 3h12M2 3l2-2.4M8 3l2-2.4M5 3l2 2.4M11 3l1 1.2',
};

/** How a theme is drawn: the ink as it must be on the present ground, and the stitch. */
export interface Look {
  ink: string;
  stitch: Stitch;
}

/** A stitch as a background image that repeats along a line. */
export function stitchImage({ ink, stitch }: Look): string {
  const width = stitch === 'dots' ? 2.6 : 1.4;
  const svg =
    `<svg xmlns="http://www.w3.org/2000/svg" width="12" height="6" viewBox="0 0 12 6">` +
    `<path d="${drawings[stitch]}" fill="none" stroke="${ink}" stroke-width="${width}" stroke-linecap="round"/></svg>`;
  return `url("data:image/svg+xml,${encodeURIComponent(svg)}")`;
}

export const stitchDrawing = (stitch: Stitch): string => drawings[stitch];
