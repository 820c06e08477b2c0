import { z } from 'zod';

/** Ids of records that the database numbers: studies, questions, respondents, responses, jobs. */
export const LARGEST_ID = 2_147_483_647;
export const idSchema = z.coerce.number().int().positive().max(LARGEST_ID);

/** Ids that the maker of a record chooses, so that a change sent twice is made once. */
export const uuidSchema = z.uuid();

export const studyParams = z.object({ study: idSchema });
export const questionParams = studyParams.extend({ question: idSchema });

/** Text that a database can keep and a page can show: well-formed, without control characters. */
export const textSchema = z.string().refine(
  // eslint-disable-next-line no-control-regex -- control characters are what is looked for
  (text) => text.isWellFormed() && !/[\u0000-\u0008\u000B\u000C\u000E-\u001F]/u.test(text),
  'Text may not hold control characters.',
);

/** What a name may be: one line, not blank, not endless. */
export const nameSchema = textSchema
  .trim()
  .min(1)
  .max(120)
  .regex(/^[^\n\r\t\u2028\u2029]*$/u, 'A name is one line.');
export const proseSchema = textSchema.max(4000);

/**
 * A list of ids that may be as long as a study has answers: looked at as a whole, since one by one takes longer than
 * reading them from the database.
 */
export const longIdsSchema = z
  .custom<number[]>((ids) => Array.isArray(ids) && ids.every(Number.isInteger))
  .meta({ type: 'array', items: { type: 'integer' } });

/** One page of a long list of records in the order of their ids. */
export const pageQuery = z.object({
  /** The id after which the page begins: the `next` of the page before it, null at the end. */
  after: idSchema.optional(),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});

/** A list of ids in an address, separated by commas. */
export const idListSchema = z
  .string()
  .default('')
  .transform((list) => (list === '' ? [] : list.split(',')))
  .pipe(z.array(uuidSchema).max(200));

/** True or false in an address. */
export const flagSchema = z.enum(['true', 'false']).transform((value) => value === 'true');

/** What kinds of background variables there are, and what their values are stored as. */
export const backgroundKindSchema = z.enum(['category', 'number', 'date', 'yes_no']);
export const valueSchema = z.union([z.string(), z.number(), z.boolean()]);

export const intervalSchema = z.tuple([z.number(), z.number()]);
export const doneSchema = z.object({ done: z.literal(true) });
