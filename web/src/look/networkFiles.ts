import serif from '@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2?url';
import sans from '@fontsource-variable/figtree/files/figtree-latin-wght-normal.woff2?url';
import { asFontFace, pictureOf } from '../lib/download.js';

const FINE = 2;
/** On paper a picture is light, whatever the screen is. */
const PRINTED: Record<string, string> = {
  'var(--color-paper)': '#fbfaf6',
  'var(--color-ink)': '#23211c',
  'var(--color-soft)': '#655f53',
  'var(--color-rule)': '#e3dfd4',
  'var(--color-thread)': '#b9b5ab',
  'var(--color-wash)': '#fbfaf6',
};

/** The whole network as an SVG with its fonts inside, however near the screen shows it. */
export async function networkAsSvg(
  drawing: SVGSVGElement,
  { width, height }: { width: number; height: number },
): Promise<Blob> {
  const whole = drawing.cloneNode(true) as SVGSVGElement;
  for (const { name } of [...whole.attributes])
    if (!['role', 'aria-label'].includes(name)) whole.removeAttribute(name);
  for (const node of whole.querySelectorAll('[class],[tabindex],[data-word],[role]'))
    for (const name of ['class', 'tabindex', 'data-word', 'role', 'aria-label', 'style'])
      node.removeAttribute(name);
  whole.setAttribute('viewBox', `0 0 ${width} ${height}`);
  whole.setAttribute('width', String(Math.round(width)));
  whole.setAttribute('height', String(Math.round(height)));
  whole.setAttribute('role', 'img');
  const faces = await Promise.all([
    asFontFace('Source Serif 4 Variable', serif),
    asFontFace('Figtree Variable', sans),
  ]);
  const style = document.createElementNS('http://www.w3.org/2000/svg', 'style');
  style.textContent = faces.join('');
  const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  ground.setAttribute('width', '100%');
  ground.setAttribute('height', '100%');
  ground.setAttribute('fill', 'var(--color-paper)');
  whole.prepend(style, ground);
  const written = new XMLSerializer().serializeToString(whole);
  return new Blob([written.replaceAll(/var\(--color-\w+\)/gu, (name) => PRINTED[name] ?? name)], {
    type: 'image/svg+xml',
  });
}

/** The same as a PNG, twice as fine. */
export const networkAsPng = (
  svg: Blob,
  { width, height }: { width: number; height: number },
): Promise<Blob> => pictureOf(svg, FINE * width, FINE * height);
