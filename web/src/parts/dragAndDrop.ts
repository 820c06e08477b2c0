import {
  draggable,
  dropTargetForElements,
} from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import { useCallback, useLayoutEffect, useRef, useState, type RefCallback } from 'react';

/** What is dragged from one place of a page to another; each has a way by keyboard as well. */
export interface Dragged {
  code: { codeId: string };
  /** Words that are selected in an answer. */
  words: { responseId: number; start: number; end: number };
  mention: { mention: string };
}

/** What was drawn last, for handlers that are attached once. */
function useLatest<Value>(value: Value) {
  const latest = useRef(value);
  useLayoutEffect(() => {
    latest.current = value;
  });
  return latest;
}

/**
 * Lets an element be dragged.
 *
 * @param data null while it cannot be
 */
export function useDraggable<Kind extends keyof Dragged>(
  kind: Kind,
  data: Dragged[Kind] | null,
): RefCallback<HTMLElement> {
  const latest = useLatest(data);
  const isDraggable = data !== null;
  return useCallback(
    (element) =>
      element && isDraggable
        ? draggable({
            element,
            getInitialData: () => ({ kind, ...latest.current }),
          })
        : undefined,
    [kind, isDraggable, latest],
  );
}

/** One ref that does what two do. */
export const useMergedRefs = (
  first: RefCallback<HTMLElement>,
  second: RefCallback<HTMLElement>,
): RefCallback<HTMLElement> =>
  useCallback(
    (element) => {
      const ends = [first(element), second(element)];
      return () => {
        for (const end of ends) end?.();
      };
    },
    [first, second],
  );

/**
 * Lets something of a kind be dropped on an element.
 *
 * @returns the element's ref, and whether something that it takes is above it
 */
export function useDropTarget<Kind extends keyof Dragged>(
  kind: Kind,
  onDrop: (data: Dragged[Kind]) => void,
  { isDisabled = false }: { isDisabled?: boolean } = {},
): [RefCallback<HTMLElement>, boolean] {
  const [isOver, setIsOver] = useState(false);
  const latest = useLatest(onDrop);
  const ref = useCallback(
    (element: HTMLElement | null) =>
      element && !isDisabled
        ? dropTargetForElements({
            element,
            canDrop: ({ source }) => source.data['kind'] === kind,
            onDragEnter: () => setIsOver(true),
            onDragLeave: () => setIsOver(false),
            onDrop: ({ source, self, location }) => {
              setIsOver(false);
              // of targets within each other, the innermost takes it
              if (location.current.dropTargets[0]?.element === self.element)
                latest.current(source.data as unknown as Dragged[Kind]);
            },
          })
        : undefined,
    [kind, isDisabled, latest],
  );
  return [ref, isOver];
}
