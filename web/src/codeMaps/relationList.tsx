import type { MapRelation } from '@yellow-thread/contract';
import type { DrawnNode } from './drawnNodes.js';

/** Relations in words, for those who read the map rather than look at it. */
export function RelationList({
  relations,
  nodes,
  onChoose,
}: {
  relations: readonly MapRelation[];
  nodes: readonly DrawnNode[];
  onChoose: (id: string) => void;
}) {
  const nodeOf = new Map(nodes.map((node) => [node.id, node]));
  return (
    <ul>
      {relations.map(({ id, fromNode, toNode, label, directed }) => {
        const [one, other] = [nodeOf.get(fromNode), nodeOf.get(toNode)];
        if (!one || !other) return null;
        return (
          <li key={id} className="border-b border-rule">
            <button
              type="button"
              className="min-h-6 w-full py-1 text-left hover:underline"
              onClick={() => onChoose(id)}
            >
              <span style={{ color: one.look.ink }}>{one.name}</span>{' '}
              <span className="text-soft">
                {label} {directed ? '→' : '—'}
              </span>{' '}
              <span style={{ color: other.look.ink }}>{other.name}</span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
