import { BasicPlatform, Chart } from 'chart.js';
import { Context } from 'svgcanvas';
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

/** The whole chart as an SVG: the same drawing, into a context that writes it down. */
export function chartAsSvg({ config, width, height }: ChartPicture): Blob {
  const context = new Context(width, height);
  const canvas = {
    ...{ width, height, style: {} },
    getContext: () => context,
    getAttribute: () => null,
    setAttribute: () => undefined,
    removeAttribute: () => undefined,
  };
  context.canvas = canvas;
  const chart = new Chart(canvas as unknown as HTMLCanvasElement, {
    ...config,
    platform: BasicPlatform,
    options: { ...config.options, devicePixelRatio: 1 },
  });
  const svg = context.getSerializedSvg();
  chart.destroy();
  return new Blob([svg], { type: 'image/svg+xml' });
}

/** Hands a file to the person, as a link to it would. */
export function download(blob: Blob, fileName: string): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = fileName;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 1000);
}
