import type { MapNode } from '@yellow-thread/contract';
import type { DrawnCodebook } from '../data/codebook.js';
import { sizeOf, NODE_HEIGHT } from './drawnNodes.js';

const GAP = 40;
const INDENT = 24;
/** As wide as a map is beside its panel; further themes go beneath. */
const WIDEST = 900;

/** All themes side by side, each with its codes beneath. */
export function wholeCodebook(mapId: string, codebook: DrawnCodebook): MapNode[] {
  const nodes: MapNode[] = [];
  let x = 0;
  let top = 0;
  let bottom = 0;
  const column = (theme: DrawnCodebook['themes'][number] | null) => {
    const codes = codebook.codes.filter(
      ({ themeId, archived }) => themeId === (theme?.id ?? null) && !archived,
    );
    if (codes.length === 0 && theme === null) return;
    const widest = Math.max(
      sizeOf(theme?.name ?? '').width,
      ...codes.map(({ name }) => INDENT + sizeOf(name).width),
    );
    if (x > 0 && x + widest > WIDEST) {
      x = 0;
      top = bottom + GAP;
    }
    let y = top;
    const put = (of: { codeId: string | null; themeId: string | null }, indent: number) => {
      nodes.push({ id: crypto.randomUUID(), mapId, ...of, x: x + indent, y });
      y += NODE_HEIGHT + GAP / 2;
    };
    if (theme) put({ codeId: null, themeId: theme.id }, 0);
    for (const { id } of codes) put({ codeId: id, themeId: null }, theme ? INDENT : 0);
    bottom = Math.max(bottom, y);
    x += widest + GAP;
  };
  codebook.themes.forEach(column);
  column(null);
  return nodes;
}
