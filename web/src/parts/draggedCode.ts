/** Under which kind a code's id travels while it is dragged. */
export const DRAGGED_CODE = 'application/x-yellow-thread-code';
