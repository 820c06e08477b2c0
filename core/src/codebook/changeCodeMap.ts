interface Node {
  id: string;
}
interface Relation {
  id: string;
  fromNode: string;
  toNode: string;
}
interface Pin {
  id: string;
  nodeId: string | null;
  relationId: string | null;
}

/** What stands on a map of codes. */
export interface MapContent<N extends Node, R extends Relation, P extends Pin> {
  nodes: N[];
  relations: R[];
  pins: P[];
}

/**
 * A map of codes after a change: records are put in the place of those with their ids, or added; with a node go its
 * relations, and with either what is pinned to them. What would hang on nothing is left out.
 *
 * @param change records made or changed, and ids of records removed
 */
export function changeCodeMap<N extends Node, R extends Relation, P extends Pin>(
  before: MapContent<N, R, P>,
  change: MapContent<N, R, P> & { removed: readonly string[] },
): MapContent<N, R, P> {
  const removed = new Set(change.removed);
  const put = <T extends Node>(standing: readonly T[], wanted: readonly T[]): T[] => {
    const byId = new Map([...standing, ...wanted].map((one) => [one.id, one]));
    return [...byId.values()].filter(({ id }) => !removed.has(id));
  };
  const nodes = put(before.nodes, change.nodes);
  const isNode = new Set(nodes.map(({ id }) => id));
  const relations = put(before.relations, change.relations).filter(
    ({ fromNode, toNode }) => fromNode !== toNode && isNode.has(fromNode) && isNode.has(toNode),
  );
  const isRelation = new Set(relations.map(({ id }) => id));
  const pins = put(before.pins, change.pins).filter(({ nodeId, relationId }) =>
    nodeId === null ? relationId !== null && isRelation.has(relationId) : isNode.has(nodeId),
  );
  return { nodes, relations, pins };
}
