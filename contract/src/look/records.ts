import { z } from 'zod';
import { withinQuery } from '../groups/records.js';

export const lookQuery = withinQuery;

export const lookSchema = z
  .object({
    /** How many answers have this many words: [1–5, 6–10, …], the last bin open. */
    lengths: z.array(z.object({ from: z.number().int(), answers: z.number().int() })),
    /** How many answers use each word in any of its forms, and how many use each form. */
    words: z.array(
      z.object({
        word: z.string(),
        answers: z.number().int(),
        forms: z.array(z.object({ form: z.string(), answers: z.number().int() })),
      }),
    ),
    /** Words that stand side by side more often than by chance, and how many answers use them in any form. */
    phrases: z.array(z.object({ phrase: z.string(), answers: z.number().int() })),
    answered: z.number().int(),
  })
  .meta({ id: 'Look' });
export type Look = z.infer<typeof lookSchema>;
