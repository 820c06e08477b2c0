import type { DrawnMap, MapNode } from '@yellow-thread/contract';
import type { DrawnCodebook } from '../data/codebook.js';
import type { Look } from '../lib/stitches.js';
import type { Box } from './geometry.js';
import { mapNodeTexts } from './texts.js';

/** A code or theme as it is drawn on a map. */
export interface DrawnNode extends Box {
  id: string;
  node: MapNode;
  name: string;
  /** How many people, and quotes that are pinned to it. */
  about: string;
  isTheme: boolean;
  /** The code, or all codes of the theme. */
  codeIds: string[];
  look: Look;
}

export const NODE_HEIGHT = 56;
const LEAST_WIDTH = 120;
const MOST_WIDTH = 260;
const PADDING = 32;
const FONT = "'Figtree Variable', system-ui, sans-serif";
export const NAME_FONT = { size: 14, weight: 600, family: FONT };
export const ABOUT_FONT = { size: 12, weight: 400, family: FONT };

let canvas: CanvasRenderingContext2D | null = null;
/** How wide a text is in a font, in pixels. */
function widthOf(text: string, { size, weight, family }: typeof NAME_FONT): number {
  canvas ??= document.createElement('canvas').getContext('2d');
  if (!canvas) return text.length * size * 0.55;
  canvas.font = `${weight} ${size}px ${family}`;
  return canvas.measureText(text).width;
}

/** A name as long as fits, with a sign where some of it is left out. */
export function shortened(text: string, width: number, font: typeof NAME_FONT): string {
  if (widthOf(text, font) <= width) return text;
  let short = text;
  while (short.length > 1 && widthOf(`${short}…`, font) > width) short = short.slice(0, -1);
  return `${short.trimEnd()}…`;
}

/** The box that a code or theme takes up. */
export function sizeOf(name: string, about = ''): { width: number; height: number } {
  const text = Math.max(widthOf(name, NAME_FONT), widthOf(about, ABOUT_FONT));
  const width = Math.ceil(text) + PADDING;
  return { width: Math.min(MOST_WIDTH, Math.max(LEAST_WIDTH, width)), height: NODE_HEIGHT };
}

/** The nodes of a map with what the codebook says of them; those of codes it does not know are left out. */
export function drawnNodes(
  { nodes, pins }: Pick<DrawnMap, 'nodes' | 'pins'>,
  codebook: DrawnCodebook,
): DrawnNode[] {
  return nodes.flatMap((node): DrawnNode[] => {
    const code = node.codeId === null ? undefined : codebook.byId.get(node.codeId);
    const theme = codebook.themes.find(({ id }) => id === node.themeId);
    const of = code ?? theme;
    if (!of) return [];
    const quotes = pins.filter(({ nodeId }) => nodeId === node.id).length;
    const count = code ? mapNodeTexts.code(of.people) : mapNodeTexts.theme(of.people);
    const about = quotes > 0 ? `${count} · ${mapNodeTexts.pinned(quotes)}` : count;
    return [
      {
        id: node.id,
        node,
        name: of.name,
        about,
        isTheme: code === undefined,
        codeIds: code
          ? [code.id]
          : codebook.codes.filter(({ themeId }) => themeId === node.themeId).map(({ id }) => id),
        look: of.look,
        ...{ x: node.x, y: node.y },
        ...sizeOf(of.name, about),
      },
    ];
  });
}
