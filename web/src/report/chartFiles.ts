import latinExtended from '@fontsource-variable/figtree/files/figtree-latin-ext-wght-normal.woff2?url';
import latin from '@fontsource-variable/figtree/files/figtree-latin-wght-normal.woff2?url';
import { Chart } from 'chart.js';
import { asFontFace } from '../lib/download.js';
import { drawnAsSvg } from './drawnAsSvg.js';
import type { TextMeasure } from './svgContext.js';
import type { ChartPicture } from './chartFrame.js';

const FINE = 2;

/** The whole chart as a PNG, twice as fine as it is shown. */
export function chartAsPng({ config, width, height }: ChartPicture): Promise<Blob> {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const chart = new Chart(canvas, {
    ...config,
    options: { ...config.options, devicePixelRatio: FINE },
  });
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => {
      chart.destroy();
      if (blob) resolve(blob);
      else reject(new Error('The browser could not make a picture of this chart.'));
    }, 'image/png');
  });
}

/** The whole chart as an SVG: the same drawing, into a context that writes it down, with its font inside. */
export async function chartAsSvg(picture: ChartPicture): Promise<Blob> {
  const fonts = await Promise.all(
    fontFiles.map(({ file, range }) => asFontFace('Figtree Variable', file, range)),
  );
  return new Blob([drawnAsSvg(picture, textMeasure(), fonts.join(''))], {
    type: 'image/svg+xml',
  });
}

/** Measured as the browser itself would set the text. */
function textMeasure(): TextMeasure {
  const context = document.createElement('canvas').getContext('2d')!;
  const ascentOf = (font: string, baseline: CanvasTextBaseline) => {
    context.font = font;
    context.textBaseline = baseline;
    return context.measureText('x').actualBoundingBoxAscent;
  };
  return {
    width: (text, font) => {
      context.font = font;
      return context.measureText(text).width;
    },
    baseline: (font, baseline) => ascentOf(font, 'alphabetic') - ascentOf(font, baseline),
  };
}

/** The ranges are those of the package's own style sheet. */
const fontFiles = [
  {
    file: latin,
    range:
      'U+0000-00FF,U+0131,U+0152-0153,U+02BB-02BC,U+02C6,U+02DA,U+02DC,U+0304,U+0308,U+0329,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD',
  },
  {
    file: latinExtended,
    range:
      'U+0100-02BA,U+02BD-02C5,U+02C7-02CC,U+02CE-02D7,U+02DD-02FF,U+0304,U+0308,U+0329,U+1D00-1DBF,U+1E00-1E9F,U+1EF2-1EFF,U+2020,U+20A0-20AB,U+20AD-20C0,U+2113,U+2C60-2C7F,U+A720-A7FF',
  },
];
