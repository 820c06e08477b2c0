import { z } from 'zod';

/** Ids of records that the database numbers: studies, questions, respondents, responses, jobs. */
export const idSchema = z.coerce.number().int().positive().max(2_147_483_647);

/** Ids that the maker of a record chooses, so that a change sent twice is made once. */
export const uuidSchema = z.uuid();

export const studyParams = z.object({ study: idSchema });
export const questionParams = studyParams.extend({ question: idSchema });

/** What a name may be: one line, not blank, not endless. */
export const nameSchema = z.string().trim().min(1).max(120);
export const proseSchema = z.string().max(4000);

/** One page of a long list; `next` is where the following page begins, null at the end. */
export const pageQuery = z.object({
  after: z.string().max(100).optional(),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});

export const intervalSchema = z.tuple([z.number(), z.number()]);
export const doneSchema = z.object({ done: z.literal(true) });
