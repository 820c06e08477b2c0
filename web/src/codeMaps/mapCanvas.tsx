import '@xyflow/react/dist/base.css';
import {
  applyNodeChanges,
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
/** Steps by arrow keys come one after the other: they are saved as one when they rest. */
const REST_MS = 600;

export interface CanvasProps {
  nodes: DrawnNode[];
  relations: MapRelation[];
  proposals: Proposal[];
  /** The id of the node, relation or proposal that is chosen. */
  chosen: string | null;
  onChoose: (id: string | null) => void;
  onMove: (places: ReadonlyMap<string, { x: number; y: number }>) => void;
  onConnect: (from: string, to: string) => void;
  onRemove: (ids: string[]) => void;
}

/** Where nodes are while they are moved, before that is saved; and how large they were measured. */
function useMoving(
  drawn: readonly DrawnNode[],
  chosen: string | null,
  onMove: CanvasProps['onMove'],
) {
  const [local, setLocal] = useState<ReadonlyMap<string, FlowNode>>(new Map());
  const moved = useRef(new Map<string, { x: number; y: number }>());
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const nodes = useMemo(
    () =>
      drawn.map((one): FlowNode => {
        const known = local.get(one.id);
        const { x, y, width, height } = one;
        return {
          ...{ id: one.id, type: 'code', ariaLabel: `${one.name}, ${one.about}` },
          data: { drawn: one },
          ...{ width, height, selected: one.id === chosen },
          position: known?.dragging === undefined ? { x, y } : known.position,
          ...(known?.measured && { measured: known.measured }),
        };
      }),
    [drawn, local, chosen],
  );
  const save = () => {
    clearTimeout(timer.current);
    if (moved.current.size === 0) return;
    onMove(moved.current);
    moved.current = new Map();
    setLocal((before) => new Map([...before].map(([id, node]) => [id, settled(node)])));
  };
  const latest = useRef(save);
  useEffect(() => {
    latest.current = save;
  });
  useEffect(() => () => latest.current(), []);
  const onNodesChange = (changes: NodeChange<FlowNode>[]) => {
    const wanted = changes.filter(({ type }) => type === 'position' || type === 'dimensions');
    if (wanted.length === 0) return;
    const next = applyNodeChanges(wanted, nodes).map((node) => {
      const change = wanted.find((one) => 'id' in one && one.id === node.id);
      return change?.type === 'position' ? { ...node, dragging: change.dragging ?? false } : node;
    });
    setLocal((before) => {
      const all = new Map(before);
      for (const node of next) {
        const isMoving = node.dragging !== undefined || before.get(node.id)?.dragging !== undefined;
        all.set(node.id, isMoving ? { ...node, dragging: true } : node);
      }
      return all;
    });
    for (const change of wanted)
      if (change.type === 'position' && change.position)
        moved.current.set(change.id, {
          x: Math.round(change.position.x),
          y: Math.round(change.position.y),
        });
    clearTimeout(timer.current);
    if (moved.current.size > 0) timer.current = setTimeout(() => latest.current(), REST_MS);
  };
  return { nodes, onNodesChange, save };
}
function settled(node: FlowNode): FlowNode {
  const at = { ...node };
  delete at.dragging;
  return at;
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
  onRemove,
}: CanvasProps) {
  const { nodes, onNodesChange, save } = useMoving(drawn, chosen, onMove);
  // lines follow what is being moved
  const placed = useMemo(
    () =>
      new Map(
        nodes.map(({ id, position, data }) => [
          id,
          { ...data.drawn, x: position.x, y: position.y },
        ]),
      ),
    [nodes],
  );
  const edges = [
    ...proposals.flatMap((proposal): ProposedEdge[] => {
      const { id } = proposal;
      const [one, other] = [placed.get(proposal.one.id), placed.get(proposal.other.id)];
      if (!one || !other) return [];
      return [
        {
          ...{ id, type: 'proposed', source: one.id, target: other.id, selected: id === chosen },
          ...{ focusable: false, deletable: false },
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
          onNodesChange(changes);
          follow(changes);
        }}
        onEdgesChange={follow}
        onNodeDragStop={save}
        onPaneClick={() => onChoose(null)}
        onConnect={({ source, target }: Connection) => onConnect(source, target)}
        onBeforeDelete={({ nodes: gone, edges: lines }) => {
          onRemove([...gone, ...lines].map(({ id }) => id));
          // what is drawn follows from what is saved
          return Promise.resolve(false);
        }}
        deleteKeyCode={['Delete', 'Backspace']}
        multiSelectionKeyCode={null}
        selectionKeyCode={null}
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
