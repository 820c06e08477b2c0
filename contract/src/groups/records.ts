import { z } from 'zod';
import { idSchema, nameSchema, proseSchema, studyParams, textSchema, uuidSchema } from '../ids.js';

const limitSchema = z.union([z.number(), z.iso.date()]).nullable();

const conditionSchema = z.discriminatedUnion('is', [
  /** One of these values, or stated and none of them; as the study calls its values. */
  z.object({
    is: z.literal('value'),
    variableId: idSchema,
    test: z.enum(['any_of', 'none_of']),
    labels: z.array(textSchema.max(500)).max(500),
  }),
  /** A number or date between two limits, both included; null for no limit on that side. */
  z.object({
    is: z.literal('range'),
    variableId: idSchema,
    from: limitSchema,
    to: limitSchema,
  }),
  z.object({ is: z.literal('stated'), variableId: idSchema, stated: z.boolean() }),
  /** What is mentioned in one question or, where it is null, in any. */
  z.object({
    is: z.literal('mentions'),
    which: z.enum(['any', 'all', 'none']),
    codeIds: z.array(uuidSchema).max(500),
    themeIds: z.array(uuidSchema).max(100),
    questionId: idSchema.nullable(),
  }),
  z.object({ is: z.literal('answered'), questionId: idSchema, answered: z.boolean() }),
  z.object({ is: z.literal('came_with'), importIds: z.array(idSchema).max(100) }),
  z.object({ is: z.literal('in_group'), groupId: uuidSchema, member: z.boolean() }),
]);

export type RuleCondition = z.infer<typeof conditionSchema>;
export type Rule = RuleCondition | { is: 'all_of' | 'any_of' | 'none_of'; rules: Rule[] };

const MOST_RULES = 50;
/** Which respondents belong to a group: a condition, or conditions joined to any depth. */
export const ruleSchema: z.ZodType<Rule> = z
  .union([
    conditionSchema,
    z.object({
      is: z.enum(['all_of', 'any_of', 'none_of']),
      get rules() {
        return z.array(ruleSchema).max(MOST_RULES);
      },
    }),
  ])
  .meta({ id: 'Rule' });

export const groupFields = z.object({
  name: nameSchema,
  description: proseSchema,
  rule: ruleSchema,
});
export type GroupFields = z.infer<typeof groupFields>;

/** A group as it is kept. */
export const groupSchema = groupFields
  .extend({ id: uuidSchema, studyId: idSchema, position: z.number().int() })
  .meta({ id: 'Group' });
export type Group = z.infer<typeof groupSchema>;

/** A group with how many belong to it now. */
export const countedGroupSchema = groupSchema
  .extend({ people: z.number().int() })
  .meta({ id: 'CountedGroup' });
export type CountedGroup = z.infer<typeof countedGroupSchema>;
export const groupListSchema = z.object({
  groups: z.array(countedGroupSchema),
  respondents: z.number().int(),
});
export type GroupList = z.infer<typeof groupListSchema>;

export const groupParams = studyParams.extend({ group: uuidSchema });
/** Of which rule the size is wanted, and for which group it is built. */
export const groupSizeQuery = z.object({ rule: ruleSchema, groupId: uuidSchema.optional() });
export const groupSizeSchema = z.object({
  people: z.number().int(),
  respondents: z.number().int(),
});

/** A rule as it stands in an address: as JSON. */
export const ruleTextSchema = z
  .string()
  .max(20_000)
  .transform((text, context): unknown => {
    try {
      return JSON.parse(text);
    } catch {
      context.addIssue({ code: 'custom', message: 'A rule is JSON.' });
      return z.NEVER;
    }
  })
  .pipe(ruleSchema);

/** Restricts what is asked for to the respondents of a group. */
export const withinQuery = z.object({ group: uuidSchema.optional() });
