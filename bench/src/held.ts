import { z } from 'zod';

const heldSchema = z.object({
  msg: z.literal('the event loop was held'),
  ms: z.number(),
  requests: z.array(z.string()),
});

/** How often one request held up all others, as a server that watches for it logs: milliseconds, and which were under way. */
export const heldIn = (lines: readonly string[]) =>
  lines.flatMap((line) => {
    const read = heldSchema.safeParse(line.startsWith('{') ? JSON.parse(line) : null);
    return read.success ? [read.data] : [];
  });
