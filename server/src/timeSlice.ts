import { setImmediate } from 'node:timers/promises';

/** The server answers others in between: nobody feels so long a wait. */
const SLICE_MS = 15;

export interface TimeSlice {
  isOver: () => boolean;
  /** Lets everything else that waits go first. */
  next: () => Promise<void>;
}

/** Parts work on the server's own thread that grows with a study, so that it never holds up other requests. */
export function startTimeSlice(): TimeSlice {
  let since = performance.now();
  return {
    isOver: () => performance.now() - since > SLICE_MS,
    next: async () => {
      await setImmediate();
      since = performance.now();
    },
  };
}
