import { z } from 'zod';
import { idSchema, longIdsSchema, studyParams, uuidSchema } from '../ids.js';

/**
 * `first_examples`: nearest in meaning to codes that have too few examples for a model. `check`: at random among the
 * answers that the models decided, to correct what is estimated of these.
 */
export const sampleKindSchema = z.enum([
  'random',
  'stratified',
  'most_telling',
  'first_examples',
  'check',
]);
export type SampleKind = z.infer<typeof sampleKindSchema>;

/** Draws answers to be coded by hand, beside those that were drawn before. */
export const sampleCreateSchema = z
  .object({
    kind: sampleKindSchema.exclude(['check']),
    size: z.number().int().min(1).max(100_000),
    /** The background variable whose values are the strata. */
    variableId: idSchema.nullable(),
    /** Left out, one is made up. */
    seed: z.number().int().min(0).max(2_147_483_647).optional(),
  })
  .refine(
    ({ kind, variableId }) => (kind === 'stratified') === (variableId !== null),
    'A stratified sample needs a variable, any other none.',
  );
export type SampleCreate = z.infer<typeof sampleCreateSchema>;
/** How many answers were drawn. */
export const sampleDrawnSchema = z.object({ drawn: z.number().int() });

/** How new codes become fewer as more is coded. */
export const saturationSchema = z
  .object({
    /** Settled answers that the figures are based on, in the order in which they were settled. */
    answers: z.number().int(),
    /** Codes that each further ten answers brought. */
    newCodes: z.array(z.number().int()),
    codes: z.number().int(),
    /** The last two tens beside the first four: new codes, and the share of what the first brought. */
    last: z.object({ new: z.number().int(), ratio: z.number() }).nullable(),
    /** Codes that there would be at least if everything were coded (Chao1), with its error. */
    richness: z.object({ estimate: z.number(), error: z.number() }),
  })
  .meta({ id: 'Saturation' });
export type Saturation = z.infer<typeof saturationSchema>;

/** Answers that a person was asked to code. */
export const assignmentSchema = z
  .object({
    id: uuidSchema,
    studyId: idSchema,
    questionId: idSchema,
    coderId: idSchema,
    responseIds: z.array(idSchema),
    assignedBy: idSchema,
    assignedAt: z.iso.datetime(),
  })
  .meta({ id: 'Assignment' });
export type Assignment = z.infer<typeof assignmentSchema>;

/** Asks for some answers, and all of the same words, to be coded by a member of the team. */
export const assignmentCreateSchema = z.object({
  id: uuidSchema,
  coderId: idSchema,
  responseIds: longIdsSchema,
});
export type AssignmentCreate = z.infer<typeof assignmentCreateSchema>;
export const assignmentParams = studyParams.extend({ assignment: uuidSchema });

export const listedAssignmentSchema = assignmentSchema
  .pick({ id: true, questionId: true, coderId: true, assignedAt: true })
  .extend({
    coder: z.string(),
    assignedBy: z.string(),
    size: z.number().int(),
    /** How many of its answers are settled by hand, by whomever. */
    settled: z.number().int(),
  })
  .meta({ id: 'ListedAssignment' });
export type ListedAssignment = z.infer<typeof listedAssignmentSchema>;
/** The newest first; to a coder, their own. */
export const assignmentsSchema = z.object({ assignments: z.array(listedAssignmentSchema) });
