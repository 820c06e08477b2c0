import { BasicPlatform, Chart } from 'chart.js';
import type { ChartPicture } from './chartFrame.js';
import { SvgContext, type TextMeasure } from './svgContext.js';

/**
 * Draws a whole chart as an SVG; needs no browser.
 *
 * @param fonts a style sheet with the fonts that the text is set in
 */
export function drawnAsSvg(
  { config, width, height }: ChartPicture,
  measure: TextMeasure,
  fonts?: string,
): string {
  const context = new SvgContext(width, height, measure);
  const canvas = {
    width,
    height,
    style: {},
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
  const svg = context.toSvg(fonts);
  // which clears the canvas too
  chart.destroy();
  return svg;
}
