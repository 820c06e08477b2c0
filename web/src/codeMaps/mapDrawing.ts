import type { MapRelation } from '@yellow-thread/contract';
import sans from '@fontsource-variable/figtree/files/figtree-latin-wght-normal.woff2?url';
import { asFontFace, pictureOf } from '../lib/download.js';
import { stitchDrawing } from '../lib/stitches.js';
import { ABOUT_FONT, NAME_FONT, shortened, type DrawnNode } from './drawnNodes.js';
import { around, lineBetween } from './geometry.js';

/** On paper a picture is light, whatever the screen is. */
const PAPER = '#fbfaf6';
const INK = '#23211c';
const SOFT = '#655f53';
const FINE = 2;
const ROOM = 32;
const LABEL_ROOM = 5;

const escape = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

const textAt = (
  text: string,
  { x, y }: { x: number; y: number },
  { size, weight }: typeof NAME_FONT,
  more: string,
): string =>
  `<text x="${x}" y="${y}" font-family="'Figtree Variable', sans-serif" font-size="${size}" font-weight="${weight}" ${more}>${escape(text)}</text>`;

function drawRelation(
  { label, directed }: MapRelation,
  [one, other]: [DrawnNode, DrawnNode],
): string {
  const { from, to, middle } = lineBetween(one, other);
  const line = `<line x1="${from.x}" y1="${from.y}" x2="${to.x}" y2="${to.y}" stroke="${SOFT}" stroke-width="1.5"${directed ? ' marker-end="url(#arrow)"' : ''}/>`;
  const name = textAt(
    label,
    { x: middle.x, y: middle.y + 4 },
    ABOUT_FONT,
    `text-anchor="middle" fill="${INK}" stroke="${PAPER}" stroke-width="${LABEL_ROOM}" paint-order="stroke"`,
  );
  return line + name;
}

function drawNode({ x, y, width, height, name, about, isTheme, look }: DrawnNode): string {
  const frame = isTheme
    ? `fill="${PAPER}" stroke="${look.ink}" stroke-width="2"`
    : `fill="#ffffff" stroke="#e3dfd4"`;
  return [
    `<rect x="${x}" y="${y}" width="${width}" height="${height}" rx="3" ${frame}/>`,
    textAt(
      shortened(name, width - 24, NAME_FONT),
      { x: x + 12, y: y + 22 },
      NAME_FONT,
      `fill="${look.ink}"`,
    ),
    `<svg x="${x + 12}" y="${y + 27}" width="${width - 24}" height="6"><rect width="100%" height="6" fill="url(#stitch-${look.stitch}-${look.ink.slice(1)})"/></svg>`,
    textAt(
      shortened(about, width - 24, ABOUT_FONT),
      { x: x + 12, y: y + 47 },
      ABOUT_FONT,
      `fill="${SOFT}"`,
    ),
  ].join('');
}

/** The whole map as an SVG with its font inside, however much of it the screen shows. */
export async function mapAsSvg(
  nodes: readonly DrawnNode[],
  relations: readonly MapRelation[],
  name: string,
): Promise<{ svg: Blob; width: number; height: number }> {
  const nodeOf = new Map(nodes.map((node) => [node.id, node]));
  const { x, y, width, height } = around(nodes, ROOM);
  const looks = new Map(
    nodes.map(({ look }) => [`stitch-${look.stitch}-${look.ink.slice(1)}`, look]),
  );
  const patterns = [...looks].map(
    ([id, { stitch, ink }]) =>
      `<pattern id="${id}" patternUnits="userSpaceOnUse" width="12" height="6"><path d="${stitchDrawing(stitch)}" fill="none" stroke="${ink}" stroke-width="1.4" stroke-linecap="round"/></pattern>`,
  );
  const drawn = relations.flatMap((relation) => {
    const [one, other] = [nodeOf.get(relation.fromNode), nodeOf.get(relation.toNode)];
    return one && other ? [drawRelation(relation, [one, other])] : [];
  });
  const svg = [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${x} ${y} ${width} ${height}" width="${width}" height="${height}" role="img" aria-label="${escape(name)}">`,
    `<style>${await asFontFace('Figtree Variable', sans)}</style>`,
    `<defs><marker id="arrow" viewBox="0 0 10 10" refX="9" refY="5" markerWidth="8" markerHeight="8" orient="auto-start-reverse"><path d="M0 0L10 5L0 10z" fill="${SOFT}"/></marker>${patterns.join('')}</defs>`,
    `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="${PAPER}"/>`,
    ...drawn,
    ...nodes.map(drawNode),
    '</svg>',
  ].join('\n');
  return { svg: new Blob([svg], { type: 'image/svg+xml' }), width, height };
}

/** The same as a PNG, twice as fine. */
export const mapAsPng = ({
  svg,
  width,
  height,
}: Awaited<ReturnType<typeof mapAsSvg>>): Promise<Blob> =>
  pictureOf(svg, FINE * width, FINE * height);
