import { useLayoutEffect, useRef, useState } from 'react';
import type { Look } from '../lib/stitches.js';

interface Thread {
  id: string;
  ink: string;
  path: string;
}

/** Ties each passage of the line it is in to its code by a fine thread, from the passage's end. */
export function Threads({
  passages,
  lifted,
}: {
  passages: { id: string; look: Look }[];
  lifted: string | null;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [threads, setThreads] = useState<Thread[]>([]);
  const drawn = passages.map(({ id, look }) => `${id} ${look.ink}`).join(',');
  useLayoutEffect(() => {
    const element = svg.current?.parentElement;
    if (!element) return;
    const draw = () =>
      setThreads(
        drawn === ''
          ? []
          : drawn.split(',').flatMap((pair) => {
              const [id, ink] = pair.split(' ') as [string, string];
              const path = pathBetween(element, id);
              return path ? [{ id, ink, path }] : [];
            }),
      );
    draw();
    const observer = new ResizeObserver(draw);
    observer.observe(element);
    return () => observer.disconnect();
  }, [drawn]);
  return (
    <svg
      ref={svg}
      aria-hidden
      className="pointer-events-none absolute inset-0 h-full w-full overflow-visible"
    >
      {threads.map(({ id, ink, path }) => (
        <path
          key={id}
          d={path}
          fill="none"
          stroke={ink}
          strokeWidth={id === lifted ? 1.8 : 0.9}
          opacity={id === lifted ? 1 : 0.55}
        />
      ))}
    </svg>
  );
}

function pathBetween(row: HTMLElement, id: string): string | null {
  const segments = row.querySelectorAll(`[data-passages~="${id}"]`);
  const passage = [...(segments[segments.length - 1]?.getClientRects() ?? [])].at(-1);
  const label = row.querySelector(`[data-label="${id}"]`)?.getBoundingClientRect();
  if (!passage || !label) return null;
  const origin = row.getBoundingClientRect();
  const from = { x: passage.right - origin.left, y: passage.bottom - origin.top - 3 };
  const to = { x: label.left - origin.left, y: label.top + label.height / 2 - origin.top };
  const bend = to.x - 30;
  return from.x < bend
    ? `M${from.x} ${from.y}H${bend}C${bend + 16} ${from.y} ${bend + 14} ${to.y} ${to.x} ${to.y}`
    : `M${from.x} ${from.y}L${to.x} ${to.y}`;
}
