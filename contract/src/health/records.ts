import { z } from 'zod';

/** Whether the server can do its work. */
export const healthSchema = z
  .object({
    database: z.enum(['reachable', 'away']),
    /** What does the jobs in this server; none where others do them. */
    runners: z.array(
      z.object({
        /** When it last reached the database. */
        lastBeat: z.iso.datetime().nullable(),
        isAtWork: z.boolean(),
      }),
    ),
    /** Where the data is kept, if the server knows; `isLow` when an import could fill it. */
    disk: z.object({ freeBytes: z.number(), isLow: z.boolean() }).nullable(),
  })
  .meta({ id: 'Health' });
export type Health = z.infer<typeof healthSchema>;
