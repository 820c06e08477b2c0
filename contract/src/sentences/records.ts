import { z } from 'zod';
import { idSchema } from '../ids.js';
import { jobSchema } from '../jobs/records.js';

/** How far the answers of a study are read for meaning. */
export const meaningSchema = z
  .object({
    /** Which encoder reads them; null where there is none. */
    encoder: z.string().nullable(),
    /** The newest job that reads them. */
    job: jobSchema.nullable(),
  })
  .meta({ id: 'Meaning' });
export type Meaning = z.infer<typeof meaningSchema>;

/** Open answers that are near in meaning to what the codebook says of a code, nearest first. */
export const nearestAnswersSchema = z
  .object({
    /** False where nothing is read for meaning, or the code says nothing that is. */
    isKnown: z.boolean(),
    answers: z.array(
      z.object({
        responseId: idSchema,
        questionId: idSchema,
        text: z.string(),
        /** Difference of cosines: above 0, nearer than to other codes. */
        nearness: z.number(),
        /** Open answers with the same words. */
        count: z.number().int(),
      }),
    ),
  })
  .meta({ id: 'NearestAnswers' });
export type NearestAnswers = z.infer<typeof nearestAnswersSchema>;
