import { useEffect, useRef, useState, type PointerEvent, type RefObject } from 'react';

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

const CLOSEST = 8;
/** What a pointer may move between press and release and still be a click. */
const STILL = 4;

/** A box that is so many times as near, about a point that stays where it is; null for the whole. */
function zoomed(
  before: Box,
  times: number,
  at: { x: number; y: number },
  { width, height }: { width: number; height: number },
): Box | null {
  const scale = Math.min((width / before.width) * times, CLOSEST);
  if (scale <= 1) return null;
  const next = { width: width / scale, height: height / scale };
  const partX = (at.x - before.x) / before.width;
  const partY = (at.y - before.y) / before.height;
  return { ...next, x: at.x - partX * next.width, y: at.y - partY * next.height };
}

/** Which part of a drawing is in view: nearer and further by wheel and keys, moved by the pointer. */
export function useZoom(
  drawing: RefObject<SVGSVGElement | null>,
  { width, height }: { width: number; height: number },
) {
  const all: Box = { x: 0, y: 0, width, height };
  const [box, setBox] = useState<Box | null>(null);
  const dragged = useRef<{ x: number; y: number; box: Box } | null>(null);
  const shown = box ?? all;
  const by = (times: number) =>
    setBox((before) => {
      const from = before ?? all;
      const middle = { x: from.x + from.width / 2, y: from.y + from.height / 2 };
      return zoomed(from, times, middle, { width, height });
    });
  useEffect(() => {
    const svg = drawing.current;
    if (!svg) return undefined;
    // React listens to wheels passively, which could not keep the page from scrolling
    const onWheel = (event: WheelEvent) => {
      const matrix = svg.getScreenCTM();
      if (!matrix) return;
      event.preventDefault();
      const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
      const whole = { x: 0, y: 0, width, height };
      setBox((before) => zoomed(before ?? whole, Math.exp(-event.deltaY / 400), at, whole));
    };
    svg.addEventListener('wheel', onWheel, { passive: false });
    return () => svg.removeEventListener('wheel', onWheel);
  }, [drawing, width, height]);
  return {
    box: `${shown.x} ${shown.y} ${shown.width} ${shown.height}`,
    isWhole: box === null,
    by,
    whole: () => setBox(null),
    handlers: {
      onPointerDown: ({ clientX, clientY }: PointerEvent) => {
        if (box) dragged.current = { x: clientX, y: clientY, box };
      },
      onPointerMove: ({ clientX, clientY, currentTarget }: PointerEvent<SVGSVGElement>) => {
        const from = dragged.current;
        if (!from) return;
        const [dx, dy] = [clientX - from.x, clientY - from.y];
        if (Math.hypot(dx, dy) < STILL) return;
        const scale = from.box.width / currentTarget.clientWidth;
        setBox({ ...from.box, x: from.box.x - dx * scale, y: from.box.y - dy * scale });
      },
      onPointerUp: () => (dragged.current = null),
      onPointerLeave: () => (dragged.current = null),
    },
  };
}
