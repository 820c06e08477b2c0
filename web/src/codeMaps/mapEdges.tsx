import { BaseEdge, EdgeLabelRenderer, type Edge, type EdgeProps } from '@xyflow/react';
import type { MapRelation } from '@yellow-thread/contract';
import type { DrawnNode } from './drawnNodes.js';
import { lineBetween } from './geometry.js';
import type { Proposal } from './proposals.js';
import { mapCanvasTexts } from './texts.js';

// a type, since React Flow wants data with an index signature
type Ends = { one: DrawnNode; other: DrawnNode };
export type RelationEdge = Edge<{ relation: MapRelation; onChoose: () => void } & Ends, 'relation'>;
export type ProposedEdge = Edge<{ proposal: Proposal; onChoose: () => void } & Ends, 'proposed'>;

const pathOf = ({ one, other }: Ends) => {
  const { from, to, middle } = lineBetween(one, other);
  return { path: `M${from.x} ${from.y}L${to.x} ${to.y}`, middle };
};

/** A relation that somebody named. */
export function RelationLine({ id, data, selected, markerEnd }: EdgeProps<RelationEdge>) {
  if (!data) return null;
  const { path, middle } = pathOf(data);
  return (
    <>
      <BaseEdge
        id={id}
        path={path}
        {...(markerEnd !== undefined && { markerEnd })}
        style={{
          stroke: selected ? 'var(--color-thread)' : 'var(--color-soft)',
          strokeWidth: selected ? 2.5 : 1.5,
        }}
      />
      <EdgeLabelRenderer>
        <button
          type="button"
          tabIndex={-1}
          onClick={data.onChoose}
          className={`nodrag nopan pointer-events-auto absolute rounded px-1 text-[12px] ${selected ? 'bg-wash' : 'bg-paper'}`}
          style={{ transform: `translate(-50%, -50%) translate(${middle.x}px, ${middle.y}px)` }}
        >
          {data.relation.label || '—'}
        </button>
      </EdgeLabelRenderer>
    </>
  );
}

/** A faint thread between codes that meet, until it is adopted. */
export function ProposedLine({ id, data, selected }: EdgeProps<ProposedEdge>) {
  if (!data) return null;
  const { path, middle } = pathOf(data);
  return (
    <>
      <BaseEdge
        id={id}
        path={path}
        style={{
          stroke: selected ? 'var(--color-thread)' : 'var(--color-soft)',
          strokeOpacity: selected ? 1 : 0.45,
          strokeDasharray: '2 5',
          strokeLinecap: 'round',
        }}
      />
      {selected && (
        <EdgeLabelRenderer>
          <span
            className="figures absolute rounded bg-wash px-1 text-[12px]"
            style={{ transform: `translate(-50%, -50%) translate(${middle.x}px, ${middle.y}px)` }}
          >
            {mapCanvasTexts.together(data.proposal.both)}
          </span>
        </EdgeLabelRenderer>
      )}
    </>
  );
}
