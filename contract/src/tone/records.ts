import { z } from 'zod';
import { withinQuery } from '../groups/records.js';
import { idSchema, questionParams, uuidSchema } from '../ids.js';
import { jobSchema } from '../jobs/records.js';
import { estimatedShareSchema, qualitySchema } from '../learning/records.js';

/** How somebody speaks in a line: of both kinds is mixed. */
export const toneSchema = z.enum(['positive', 'negative', 'mixed', 'none']);
export type Tone = z.infer<typeof toneSchema>;

/** What a person found the tone of a line to be. */
export const toneCheckSchema = z
  .object({
    id: uuidSchema,
    studyId: idSchema,
    responseId: idSchema,
    /** The line, in UTF-16 units. */
    start: z.number().int().min(0),
    end: z.number().int().min(1),
    tone: toneSchema,
    /** Read as one of the random sample, without a proposal in view. */
    atRandom: z.boolean(),
    checkedBy: idSchema,
  })
  .meta({ id: 'ToneCheck' });
export type ToneCheck = z.infer<typeof toneCheckSchema>;
export const toneCheckParams = questionParams.extend({ check: uuidSchema });
export const toneCheckFields = toneCheckSchema
  .pick({ responseId: true, start: true, end: true, tone: true, atRandom: true })
  .refine(({ start, end }) => end > start, 'A line ends behind its start.');
export type ToneCheckFields = z.infer<typeof toneCheckFields>;

const MOST_AT_ONCE = 100;
export const toneQuery = withinQuery.extend({
  limit: z.coerce.number().int().min(1).max(MOST_AT_ONCE).default(20),
});

const countSchema = z.number().int();
const countsSchema = z.record(toneSchema, countSchema);
/** A line with the answer that it is of. */
const toneLineSchema = z.object({
  responseId: idSchema,
  start: z.number().int(),
  end: z.number().int(),
  /** The whole answer. */
  text: z.string(),
});
export const proposedToneSchema = toneLineSchema.extend({
  tone: toneSchema,
  /** 0 to 1: by how much the words weigh, or how likely the models take it to be. */
  strength: z.number(),
  /** The words that weigh in the lexicon, with what they count for there. */
  words: z.array(z.object({ start: z.number().int(), end: z.number().int(), rating: z.number() })),
});
export type ProposedTone = z.infer<typeof proposedToneSchema>;

/** How well the models of tone do on checked lines that they did not see. */
const toneQualitySchema = z.object({ examples: countSchema, quality: qualitySchema }).nullable();
export const toneModelSchema = z.object({
  trainedAt: z.iso.datetime(),
  /** Checked lines that it learnt from. */
  checked: countSchema,
  positive: toneQualitySchema,
  negative: toneQualitySchema,
});
export type ToneModel = z.infer<typeof toneModelSchema>;

export const toneOverviewSchema = z
  .object({
    /** Lines of the answers, and what is proposed for those that nobody checked. */
    lines: countSchema,
    proposed: countsSchema,
    /** Lines that a person checked, by what they found. */
    checked: countsSchema,
    /** Of the checked lines that the lexicon takes to have a tone, how many people found as it says. */
    agreed: z.object({ right: countSchema, of: countSchema }),
    /** Proposals that nobody checked, strongest first: no more than were asked for. */
    proposals: z.array(proposedToneSchema),
    /** What proposes: the lexicon, or the study's own models. */
    source: z.enum(['lexicon', 'models']),
    model: toneModelSchema.nullable(),
    /** Checked lines in the whole study since the models were trained. */
    checkedSince: countSchema,
    job: jobSchema.nullable(),
    /** Answers drawn at random, and how many of them are read to their last line. */
    sample: z.object({ answers: countSchema, read: countSchema }),
    /** Lines of the sample that are to be read, in a fixed order and without a proposal. */
    toRead: z.array(toneLineSchema),
  })
  .meta({ id: 'ToneOverview' });
export type ToneOverview = z.infer<typeof toneOverviewSchema>;
export type ToneLine = z.infer<typeof toneLineSchema>;

export const toneSampleSchema = z.object({ size: z.number().int().min(1).max(10_000) });
export const toneSampleDrawnSchema = z.object({ drawn: countSchema });

export const toneReportQuery = withinQuery.extend({ by: idSchema.optional() });
const toneCellSchema = z.object({
  /** Who speaks of it, and how many of these are in the sample that was read. */
  people: countSchema,
  sampled: countSchema,
  positive: estimatedShareSchema.extend({ sampleShare: z.number() }).nullable(),
  negative: estimatedShareSchema.extend({ sampleShare: z.number() }).nullable(),
});
export type ToneCell = z.infer<typeof toneCellSchema>;
export const toneReportSchema = z
  .object({
    /** Answers of the sample that are read to the last line, and those that are not yet. */
    sample: z.object({ answers: countSchema, read: countSchema }),
    /** With how many of the sample a cell says something. */
    fewest: countSchema,
    /** Whether the models put the sample right. */
    withModels: z.boolean(),
    columns: z.array(z.object({ label: z.string(), answered: countSchema })),
    rows: z.array(
      z.object({
        /** The theme or code; null for all answers. */
        themeId: uuidSchema.nullable(),
        codeId: uuidSchema.nullable(),
        name: z.string(),
        cells: z.array(toneCellSchema),
      }),
    ),
  })
  .meta({ id: 'ToneReport' });
export type ToneReport = z.infer<typeof toneReportSchema>;
