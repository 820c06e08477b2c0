import { z } from 'zod';

/** Every error reply: a code for programs, a sentence for people, details where they help. */
export const problemSchema = z
  .object({
    code: z.string(),
    sentence: z.string(),
    details: z.record(z.string(), z.unknown()).optional(),
  })
  .meta({ id: 'Problem' });
export type Problem = z.infer<typeof problemSchema>;
