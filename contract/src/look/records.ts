import { z } from 'zod';
import { withinQuery } from '../groups/records.js';

export const lookQuery = withinQuery;

export const lookSchema = z
  .object({
    /** How many answers have this many words: [1–5, 6–10, …], the last bin open. */
    lengths: z.array(z.object({ from: z.number().int(), answers: z.number().int() })),
    words: z.array(z.object({ word: z.string(), answers: z.number().int() })),
    answered: z.number().int(),
  })
  .meta({ id: 'Look' });
export type Look = z.infer<typeof lookSchema>;
