import type { CodesTogether } from '@yellow-thread/contract';
import type { DrawnNode } from './drawnNodes.js';

/** Two codes on the map that meet more often than by chance. */
export interface Proposal {
  id: string;
  one: DrawnNode;
  other: DrawnNode;
  both: number;
  jaccard: number;
  phi: number;
}

/** More would be more than anybody looks at. */
const MOST = 20;
const SIGNIFICANT = 0.05;

/** The strongest first; pairs that are related already are left out. */
export function proposalsOf(
  { codes }: CodesTogether,
  nodes: readonly DrawnNode[],
  relations: readonly { fromNode: string; toNode: string }[],
): Proposal[] {
  const nodeOf = new Map(nodes.map((drawn) => [drawn.node.codeId, drawn]));
  const related = new Set(
    relations.flatMap(({ fromNode, toNode }) => [`${fromNode} ${toNode}`, `${toNode} ${fromNode}`]),
  );
  const found = codes.flatMap((code, i) =>
    code.cells.slice(i + 1).flatMap((cell, k): Proposal[] => {
      const one = nodeOf.get(code.id);
      const other = nodeOf.get(codes[i + 1 + k]!.id);
      if (!one || !other || !cell || cell.p > SIGNIFICANT || (cell.phi ?? 0) <= 0) return [];
      if (related.has(`${one.id} ${other.id}`)) return [];
      const { unweighted: both, jaccard, phi } = cell;
      return [
        { id: `${one.id} ${other.id}`, one, other, both, jaccard: jaccard ?? 0, phi: phi ?? 0 },
      ];
    }),
  );
  return found.sort((x, y) => y.phi - x.phi).slice(0, MOST);
}
