import { z } from 'zod';
import { ruleSchema, ruleTextSchema, withinQuery } from '../groups/records.js';
import { asideMarksSchema, noAnswersSchema } from '../sheet/records.js';
import {
  backgroundKindSchema,
  flagSchema,
  idSchema,
  LARGEST_ID,
  longIdsSchema,
  nameSchema,
  proseSchema,
  studyParams,
  textSchema,
} from '../ids.js';

export const backgroundValueSchema = z.union([textSchema.max(10_000), z.number(), z.boolean()]);
export type BackgroundValue = z.infer<typeof backgroundValueSchema>;

/** One band of a number or date: from its own limit up to the next band's; only the first may have none. */
export const bandSchema = z.object({
  label: nameSchema,
  from: z.union([z.number(), z.iso.date()]).nullable(),
});
export type Band = z.infer<typeof bandSchema>;

/** Categories that respondents are assigned to by rules; what becomes of those whom several pick, or none. */
export const byRuleSchema = z
  .object({
    rules: z
      .array(z.object({ label: nameSchema, rule: ruleSchema }))
      .min(1)
      .max(60),
    inSeveral: nameSchema.nullable(),
    inNone: nameSchema.nullable(),
  })
  .meta({ id: 'ByRule' });
export type ByRule = z.infer<typeof byRuleSchema>;
/** How a variable is computed: in bands of another one, or by rules. */
export const derivedSchema = z.union([
  z.object({ from: z.number().int(), bands: z.array(bandSchema) }),
  byRuleSchema,
]);
export type Derived = z.infer<typeof derivedSchema>;
export const byRuleCreateSchema = z.object({ name: nameSchema, by: byRuleSchema });

/** In which order respondents are listed, and which of them. */
export const respondentQuery = withinQuery.extend({
  /** By id, in the order of their coming, or by a background variable. */
  sort: z.union([z.enum(['id', 'order']), idSchema]).default('order'),
  descending: flagSchema.default(false),
  /** Only those of whom the id or some background value holds this. */
  words: textSchema.max(200).default(''),
  /** Only those whom this rule picks. */
  rule: ruleTextSchema.optional(),
});
export type RespondentQuery = z.infer<typeof respondentQuery>;
export const respondentIdsSchema = z.object({ ids: longIdsSchema });

/** Respondents are fetched as they come into view. */
export const respondentRowsQuery = z.object({
  ids: z
    .string()
    .regex(/^\d{1,10}(?:,\d{1,10}){0,199}$/u)
    .transform((list) => list.split(',').map(Number))
    .pipe(z.array(z.int().max(LARGEST_ID))),
});
export const respondentRowSchema = z
  .object({
    id: idSchema,
    externalId: z.string(),
    weight: z.number().nullable(),
    background: z.record(z.string(), backgroundValueSchema.nullable()),
  })
  .meta({ id: 'Respondent' });
export type RespondentRow = z.infer<typeof respondentRowSchema>;
export const respondentRowsSchema = z.object({ respondents: z.array(respondentRowSchema) });

export const respondentParams = studyParams.extend({ respondent: idSchema });
export const respondentChangeSchema = z.object({
  variableId: idSchema,
  value: backgroundValueSchema.nullable(),
});

export const variableParams = studyParams.extend({ variable: idSchema });
/** A variable with what its values are called and how often each occurs. */
export const variableDetailSchema = z
  .object({
    id: idSchema,
    name: z.string(),
    kind: backgroundKindSchema,
    derived: derivedSchema.nullable(),
    /** In order; those of one label count as one. Empty when there are too many to be listed. */
    categories: z.array(
      z.object({ value: z.string(), label: z.string(), count: z.number().int() }),
    ),
    stated: z.number().int(),
    lowest: z.string().nullable(),
    highest: z.string().nullable(),
  })
  .meta({ id: 'VariableDetail' });
export type VariableDetail = z.infer<typeof variableDetailSchema>;

export const variableChangeSchema = z.object({ name: textSchema.trim().min(1).max(500) });
export const categoriesSchema = z.object({
  categories: z.array(z.object({ value: textSchema.max(200), label: nameSchema })).max(1000),
});
export const bandsSchema = z
  .object({ name: nameSchema, bands: z.array(bandSchema).min(1).max(60) })
  .refine(
    ({ bands }) =>
      bands.every(({ from }, b) => {
        const before = bands[b - 1]?.from;
        if (b === 0) return true;
        return (
          from !== null && (before === null || (typeof before === typeof from && before! < from))
        );
      }),
    'Limits must rise from band to band; only the first may have none.',
  );

export const studyChangeSchema = z
  .object({
    name: nameSchema,
    purpose: proseSchema,
    asides: asideMarksSchema,
    setAside: z.array(textSchema.min(1).max(80)).max(500),
  })
  .partial();
export type StudyChange = z.infer<typeof studyChangeSchema>;
export const noAnswerListSchema = z.object({ noAnswers: noAnswersSchema });
/** How many responses changed sides when the list did. */
export const noAnswerResultSchema = z.object({
  becameAnswers: z.number().int(),
  becameNoAnswers: z.number().int(),
  /** Responses that are coded or settled stay answers. */
  keptCoded: z.number().int(),
});
export const questionChangeSchema = z
  .object({ label: nameSchema, wording: textSchema.trim().min(1).max(500) })
  .partial();
export const questionOrderSchema = z.object({ questions: z.array(idSchema).max(1000) });
