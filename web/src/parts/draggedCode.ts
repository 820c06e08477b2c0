import { z } from 'zod';

/** Under which kind a code's id travels while it is dragged. */
export const DRAGGED_CODE = 'application/x-yellow-thread-code';

/** Under which kind marked words travel while they are dragged. */
export const DRAGGED_WORDS = 'application/x-yellow-thread-words';
export const draggedWordsSchema = z.object({
  responseId: z.number(),
  start: z.number(),
  end: z.number(),
});
