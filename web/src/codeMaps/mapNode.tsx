import { Handle, Position, type Node, type NodeProps } from '@xyflow/react';
import { stitchImage } from '../lib/stitches.js';
import type { DrawnNode } from './drawnNodes.js';

export type FlowNode = Node<{ drawn: DrawnNode }, 'code'>;

/** A code or a theme: its name on its stitch, and how many people. From its edge a relation is drawn. */
export function MapNodeBox({ data: { drawn }, selected }: NodeProps<FlowNode>) {
  const { name, about, isTheme, look, width, height } = drawn;
  return (
    <div
      style={{
        width,
        height,
        borderColor: isTheme && !selected ? look.ink : undefined,
      }}
      className={`rounded px-3 pt-1.5 ${isTheme ? 'border-2 bg-paper' : 'border bg-card'} ${selected ? 'border-thread outline-2 outline-thread' : 'border-rule'}`}
    >
      <p
        className="truncate text-[14px] font-semibold leading-5"
        style={{ color: look.ink }}
        title={name}
      >
        {name}
      </p>
      <span
        aria-hidden
        className="block h-1.5 bg-repeat-x"
        style={{ backgroundImage: stitchImage(look) }}
      />
      <p className="figures truncate text-[12px] leading-5 text-soft">{about}</p>
      {[Position.Right, Position.Left, Position.Top, Position.Bottom].map((position) => (
        <Handle
          key={position}
          id={position}
          type="source"
          position={position}
          className="map-end"
        />
      ))}
    </div>
  );
}
