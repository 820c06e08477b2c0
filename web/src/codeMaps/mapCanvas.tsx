import '@xyflow/react/dist/base.css';
import {
  ConnectionMode,
  Controls,
  MarkerType,
  ReactFlow,
  type Connection,
  type EdgeChange,
  type NodeChange,
} from '@xyflow/react';
import type { MapRelation } from '@yellow-thread/contract';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { DrawnNode } from './drawnNodes.js';
import { ProposedLine, RelationLine, type ProposedEdge, type RelationEdge } from './mapEdges.js';
import { MapNodeBox, type FlowNode } from './mapNode.js';
import type { Proposal } from './proposals.js';
import { mapCanvasTexts } from './texts.js';

const nodeTypes = { code: MapNodeBox };
const edgeTypes = { relation: RelationLine, proposed: ProposedLine };
const labels = {
  'controls.ariaLabel': mapCanvasTexts.view,
  'controls.zoomIn.ariaLabel': mapCanvasTexts.closer,
  'controls.zoomOut.ariaLabel': mapCanvasTexts.further,
  'controls.fitView.ariaLabel': mapCanvasTexts.whole,
  'node.a11yDescription.default': mapCanvasTexts.toChoose,
  'edge.a11yDescription.default': mapCanvasTexts.toChoose,
};
/** Steps by arrow keys come one after the other: they are saved as one when they rest. */
const REST_MS = 600;

/** By the id of a node. */
type Places = ReadonlyMap<string, { x: number; y: number }>;

export interface CanvasProps {
  nodes: DrawnNode[];
  relations: MapRelation[];
  proposals: Proposal[];
  /** The id of the node, relation or proposal that is chosen. */
  chosen: string | null;
  onChoose: (id: string | null) => void;
  onMove: (places: Places) => void;
  onConnect: (from: string, to: string) => void;
}

/** Where nodes are while they are moved, until that is saved. */
function useMoving(onMove: CanvasProps['onMove']) {
  const [places, setPlaces] = useState<Places>(new Map());
  const moved = useRef<Places>(new Map());
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const put = (next: Places) => {
    moved.current = next;
    setPlaces(next);
  };
  const save = () => {
    clearTimeout(timer.current);
    if (moved.current.size === 0) return;
    onMove(moved.current);
    put(new Map());
  };
  const latest = useRef(save);
  useEffect(() => {
    latest.current = save;
  });
  useEffect(() => () => latest.current(), []);
  const move = (changes: readonly NodeChange<FlowNode>[]) => {
    const next = new Map(moved.current);
    for (const change of changes)
      if (change.type === 'position' && change.position)
        next.set(change.id, {
          x: Math.round(change.position.x),
          y: Math.round(change.position.y),
        });
    if (next.size === 0) return;
    put(next);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => latest.current(), REST_MS);
  };
  return { places, move, save };
}

function flowNode(drawn: DrawnNode, selected: boolean): FlowNode {
  const { id, name, about, x, y, width, height } = drawn;
  return {
    ...{ id, type: 'code', ariaLabel: `${name}, ${about}`, data: { drawn }, selected },
    ...{ position: { x, y }, width, height },
    // as large as it is drawn: there is nothing to be measured
    measured: { width, height },
  };
}

/** The map itself: codes to be dragged about, with the relations between them. */
export function MapCanvas({
  nodes: drawn,
  relations,
  proposals,
  chosen,
  onChoose,
  onMove,
  onConnect,
}: CanvasProps) {
  const { places, move, save } = useMoving(onMove);
  // lines follow what is being moved
  const placed = useMemo(
    () => new Map(drawn.map((one) => [one.id, { ...one, ...places.get(one.id) }])),
    [drawn, places],
  );
  const nodes = useMemo(
    () => [...placed.values()].map((one) => flowNode(one, one.id === chosen)),
    [placed, chosen],
  );
  const edges = [
    ...proposals.flatMap((proposal): ProposedEdge[] => {
      const { id } = proposal;
      const [one, other] = [placed.get(proposal.one.id), placed.get(proposal.other.id)];
      if (!one || !other) return [];
      return [
        {
          ...{ id, type: 'proposed', source: one.id, target: other.id, selected: id === chosen },
          focusable: false,
          data: { one, other, proposal, onChoose: () => onChoose(id) },
        },
      ];
    }),
    ...relations.flatMap((relation): RelationEdge[] => {
      const { id } = relation;
      const [one, other] = [placed.get(relation.fromNode), placed.get(relation.toNode)];
      if (!one || !other) return [];
      return [
        {
          ...{ id, type: 'relation', source: one.id, target: other.id, selected: id === chosen },
          ariaLabel: `${one.name} ${relation.label} ${other.name}`,
          data: { one, other, relation, onChoose: () => onChoose(id) },
          ...(relation.directed && {
            markerEnd: { type: MarkerType.ArrowClosed, color: 'var(--color-soft)', width: 18 },
          }),
        },
      ];
    }),
  ];
  // by a click, or by Enter and Escape
  const follow = (changes: readonly (NodeChange<FlowNode> | EdgeChange)[]) => {
    const selections = changes.filter((one) => one.type === 'select');
    const taken = selections.find(({ selected }) => selected);
    if (taken) onChoose(taken.id);
    else if (selections.some(({ id }) => id === chosen)) onChoose(null);
  };
  return (
    <section aria-label={mapCanvasTexts.map} className="h-full min-h-[480px] min-w-0">
      <ReactFlow<FlowNode, RelationEdge | ProposedEdge>
        nodes={nodes}
        edges={edges}
        nodeTypes={nodeTypes}
        edgeTypes={edgeTypes}
        connectionMode={ConnectionMode.Loose}
        onNodesChange={(changes) => {
          move(changes);
          follow(changes);
        }}
        onEdgesChange={follow}
        onNodeDragStop={save}
        onPaneClick={() => onChoose(null)}
        onConnect={({ source, target }: Connection) => onConnect(source, target)}
        deleteKeyCode={null}
        multiSelectionKeyCode={null}
        selectionKeyCode={null}
        ariaLabelConfig={labels}
        fitView
        fitViewOptions={{ maxZoom: 1, padding: 0.12 }}
        minZoom={0.1}
        maxZoom={2}
      >
        <Controls showInteractive={false} position="bottom-left" />
      </ReactFlow>
    </section>
  );
}
