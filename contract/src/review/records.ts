import { z } from 'zod';
import { mentionSchema } from '../coding/records.js';
import { withinQuery } from '../groups/records.js';
import { idSchema, pageQuery, questionParams, uuidSchema, valueSchema } from '../ids.js';
import { modelVerdictSchema } from './finish.js';
import { qualitySchema } from '../learning/records.js';

export const decisionSchema = z.enum(['open', 'accepted', 'refused']);
export type Decision = z.infer<typeof decisionSchema>;

/** A suggestion and what was decided of it. */
export const suggestionSchema = z
  .object({
    responseId: idSchema,
    codeId: uuidSchema,
    state: decisionSchema,
    decidedBy: idSchema.nullable(),
    decidedAt: z.iso.datetime().nullable(),
    bulk: z.boolean(),
  })
  .meta({ id: 'Suggestion' });
export type Suggestion = z.infer<typeof suggestionSchema>;

/** A suggestion as it is read. */
export const suggestedAnswerSchema = z
  .object({
    responseId: idSchema,
    externalId: z.string(),
    background: z.record(z.string(), valueSchema.nullable()),
    text: z.string(),
    probability: z.number(),
    /** The words that are the strongest evidence for it, as what they add to the log-odds. */
    evidence: z.array(z.object({ word: z.string(), weight: z.number() })),
    /** What all of its words add to them together, and what the meaning of the line adds; null where it is not known. */
    fromWords: z.number().nullable(),
    fromMeaning: z.number().nullable(),
    state: decisionSchema,
    bulk: z.boolean(),
    /** Who decided it; null while it is open. */
    by: z.string().nullable(),
    mentions: z.array(mentionSchema),
    /** The note by which the coding of the answer was called doubtful; null for none. */
    unsure: uuidSchema.nullable(),
    /** How many suggestions in the same state are for answers with the same words. */
    count: z.number().int(),
  })
  .meta({ id: 'SuggestedAnswer' });
export type SuggestedAnswer = z.infer<typeof suggestedAnswerSchema>;

/** The hand-coded lines of a question that are nearest in meaning to what a suggestion is for, nearest first. */
export const nearestCodedSchema = z
  .object({
    lines: z.array(
      z.object({
        responseId: idSchema,
        externalId: z.string(),
        text: z.string(),
        hasCode: z.boolean(),
      }),
    ),
  })
  .meta({ id: 'NearestCoded' });
export type NearestCoded = z.infer<typeof nearestCodedSchema>;
export const suggestionParams = questionParams.extend({ code: uuidSchema, response: idSchema });

export const suggestionPageSchema = z
  .object({ suggestions: z.array(suggestedAnswerSchema), next: z.string().nullable() })
  .meta({ id: 'SuggestionPage' });
export type SuggestionPage = z.infer<typeof suggestionPageSchema>;
/** Suggestions page by probability and, among equals, by the answer's id. */
export const suggestionQuery = pageQuery.extend({
  ...withinQuery.shape,
  /** Whether suggestions for answers of the same words stand as one, where they stand alike. */
  same: z.enum(['joined', 'apart']).default('joined'),
  after: z
    .string()
    .regex(/^[01](?:\.\d+)?:\d{1,9}$/u)
    .optional(),
});

/** Everything that the line's figures follow from, so that moving it asks no server. */
export const reviewSchema = z
  .object({
    codeId: uuidSchema,
    runId: idSchema,
    defaultThreshold: z.number(),
    threshold: z.number(),
    examples: z.number().int(),
    weak: z.boolean(),
    verdict: modelVerdictSchema,
    quality: qualitySchema,
    /** Answers of which it is not known whether they mention the code, and those of them without a suggestion. */
    undecided: z.number().int(),
    withoutSuggestion: z.number().int(),
    /** Whether the code is decided for every answer. */
    isClosed: z.boolean(),
    /** What the model predicted for settled answers that it had not seen: those with the code, and those without it. */
    unseen: z.object({ yes: z.array(z.number()), no: z.array(z.number()) }),
    /** Probabilities of the open suggestions, highest first. */
    open: z.array(z.number()),
    accepted: z.number().int(),
    acceptedInBulk: z.number().int(),
    refused: z.number().int(),
    refusedInBulk: z.number().int(),
    /** Whether there ever was a suggestion of it, of anybody: otherwise there was nothing to decide. */
    suggested: z.boolean(),
    /** What the model expects to be right of those accepted in bulk, and missed of those refused in bulk. */
    acceptedExpected: z.number(),
    refusedExpected: z.number(),
    /** The share to which the code applied when a spot check read some of either; null until one did. */
    checked: z.object({ accepted: z.number().nullable(), refused: z.number().nullable() }),
    /** Answers that are known to mention the code: by hand, or read and accepted. */
    known: z.number().int(),
    /** Expected mentions among open answers too improbable to be suggested. */
    unsuggested: z.number(),
  })
  .meta({ id: 'Review' });
export type Review = z.infer<typeof reviewSchema>;

/** The codes of a question that have suggestions, for choosing one. */
export const reviewListSchema = z
  .object({
    codes: z.array(
      z.object({
        codeId: uuidSchema,
        open: z.number().int(),
        accepted: z.number().int(),
        refused: z.number().int(),
        /** Who decided how many: read one by one, and in bulk. */
        deciders: z.array(
          z.object({ name: z.string(), read: z.number().int(), bulk: z.number().int() }),
        ),
      }),
    ),
    /** Bulk decisions that the current run, which did not learn from them, strongly contradicts. */
    contradicted: z.array(
      z.object({
        codeId: uuidSchema,
        responseId: idSchema,
        state: z.enum(['accepted', 'refused']),
        probability: z.number(),
      }),
    ),
  })
  .meta({ id: 'ReviewList' });
export type ReviewList = z.infer<typeof reviewListSchema>;

export const reviewParams = questionParams.extend({ code: uuidSchema });

/** Where the threshold is moved to, and where it was before, so that two people do not overwrite each other. */
export const thresholdSchema = z.object({
  from: z.number().min(0).max(1),
  to: z.number().min(0).max(1),
});
export type ThresholdMove = z.infer<typeof thresholdSchema>;
export const decideSchema = z.object({
  responseId: idSchema,
  state: decisionSchema,
  /** Whether the open suggestions for answers of the same words are decided with it. */
  toSame: z.boolean().default(false),
  /** The words that what is accepted rests on; left out for the whole answer. */
  passage: z.object({ start: z.number().int().min(0), end: z.number().int().min(1) }).optional(),
  /** Another code that is given by hand in the same stroke, in its place or beside it, under this mention's id. */
  other: z.object({ id: uuidSchema, codeId: uuidSchema }).optional(),
});
export type Decide = z.infer<typeof decideSchema>;

/** Settle every open suggestion on one side of the line, as read in this run. */
export const decideByThresholdSchema = z.object({
  runId: idSchema,
  threshold: z.number().min(0).max(1),
  side: z.enum(['above', 'below']),
});
export type DecideByThreshold = z.infer<typeof decideByThresholdSchema>;
export const decidedByThresholdSchema = z.object({ decided: z.number().int() });
