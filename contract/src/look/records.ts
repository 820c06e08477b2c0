import { z } from 'zod';
import { ruleTextSchema, withinQuery } from '../groups/records.js';
import { jobSchema } from '../jobs/records.js';
import {
  idSchema,
  longIdsSchema,
  nameSchema,
  questionParams,
  textSchema,
  uuidSchema,
} from '../ids.js';

export const lookQuery = withinQuery;

const countSchema = z.number().int();

export const lookSchema = z
  .object({
    /** How many answers have this many words: [1–5, 6–10, …], the last bin open. */
    lengths: z.array(z.object({ from: z.number().int(), answers: countSchema })),
    /** How many answers use each word in any of its forms, and how many use each form. */
    words: z.array(
      z.object({
        word: z.string(),
        answers: countSchema,
        forms: z.array(z.object({ form: z.string(), answers: countSchema })),
      }),
    ),
    /** Words that stand side by side more often than by chance, and how many answers use them in any form. */
    phrases: z.array(z.object({ phrase: z.string(), answers: countSchema })),
    answered: countSchema,
  })
  .meta({ id: 'Look' });
export type Look = z.infer<typeof lookSchema>;

/** Who is compared with everybody else: the respondents whom a rule picks. */
export const contrastQuery = withinQuery.extend({ of: ruleTextSchema });

const termContrastSchema = z.object({
  term: z.string(),
  isPhrase: z.boolean(),
  /** How many answers use it, of those compared and of all others. */
  group: countSchema,
  rest: countSchema,
  /** The base-2 logarithm of the ratio of the two shares. */
  logRatio: z.number(),
  /** G², and its p-value corrected for all terms. */
  likelihood: z.number(),
  p: z.number(),
});
export const contrastSchema = z
  .object({
    group: countSchema,
    rest: countSchema,
    /** How many words and phrases were compared. */
    compared: countSchema,
    more: z.array(termContrastSchema),
    less: z.array(termContrastSchema),
  })
  .meta({ id: 'Contrast' });
export type Contrast = z.infer<typeof contrastSchema>;
export type TermContrast = Contrast['more'][number];

const MOST_HIDDEN = 60;
export const networkQuery = withinQuery.extend({
  /** Words that stand aside in this picture. */
  hidden: z
    .array(textSchema.max(60))
    .max(MOST_HIDDEN)
    .or(textSchema.max(60).transform((one) => [one]))
    .default([]),
  /** The background variable by whose values topics are counted. */
  by: idSchema.optional(),
});
export type NetworkQuery = z.infer<typeof networkQuery>;
export const networkFileParams = questionParams.extend({
  format: z.enum(['words.csv', 'links.csv', 'topics.csv', 'graphml']),
});
export type NetworkFormat = z.infer<typeof networkFileParams>['format'];

/** An answer that is shown for what it stands for. */
const quotedAnswerSchema = z.object({ id: idSchema, text: z.string() });
export type QuotedAnswer = z.infer<typeof quotedAnswerSchema>;

export const networkSchema = z
  .object({
    answered: countSchema,
    lines: countSchema,
    words: z.array(
      z.object({
        word: z.string(),
        answers: countSchema,
        /** Its topic's index; null for a word without company. */
        topic: countSchema.nullable(),
      }),
    ),
    /** Which words, by index, stand in one line more often than by chance. */
    links: z.array(
      z.object({
        from: countSchema,
        to: countSchema,
        /** How many answers, and how many lines, have both in one line. */
        answers: countSchema,
        lines: countSchema,
        /** Normalised pointwise mutual information. */
        npmi: z.number(),
      }),
    ),
    modularity: z.number(),
    /** By what topics are counted, and how many answered in each of its columns. */
    columns: z.array(z.object({ label: z.string(), answers: countSchema })),
    topics: z.array(
      z.object({
        /** Its most used words. */
        name: z.string(),
        /** Indices of its words, most used first. */
        words: z.array(countSchema),
        /** How many answers use any of its words, in all and by column. */
        answers: countSchema,
        byColumn: z.array(countSchema),
        typical: z.array(quotedAnswerSchema),
      }),
    ),
    /** Frequent topics that fewer answers join than would by chance. */
    gaps: z.array(
      z.object({
        one: countSchema,
        other: countSchema,
        both: countSchema,
        expected: z.number(),
        p: z.number(),
        joined: z.array(quotedAnswerSchema),
      }),
    ),
  })
  .meta({ id: 'WordNetwork' });
export type WordNetwork = z.infer<typeof networkSchema>;

/** What became of answers that were gathered: a code was made of them, they wait, or they are no theme. */
export const clusterStateSchema = z.enum(['adopted', 'later', 'dismissed']);
export type ClusterState = z.infer<typeof clusterStateSchema>;
const MOST_GATHERED = 100_000;

/** Answers that somebody decided about together: they are not gathered again. */
export const answerClusterSchema = z
  .object({
    id: uuidSchema,
    studyId: idSchema,
    questionId: idSchema,
    state: clusterStateSchema,
    name: nameSchema,
    responseIds: z.array(idSchema).min(1).max(MOST_GATHERED),
  })
  .meta({ id: 'AnswerCluster' });
export type AnswerCluster = z.infer<typeof answerClusterSchema>;

export const clusterParams = questionParams.extend({ cluster: uuidSchema });
/** To adopt answers is to make a code that they are to be checked for. */
export const clusterDecisionSchema = z
  .object({
    state: clusterStateSchema,
    name: nameSchema,
    responseIds: answerClusterSchema.shape.responseIds,
    /** The code that is made; null for none. */
    codeId: uuidSchema.nullable(),
  })
  .refine(
    ({ state, codeId }) => (state === 'adopted') === (codeId !== null),
    'Answers are adopted as a code, and only then.',
  );
export type ClusterDecision = z.infer<typeof clusterDecisionSchema>;

const MOST_CLUSTERS = 20;
export const clustersQuery = withinQuery.extend({
  /** How many clusters; left out for as many as the silhouette chooses. */
  k: z.coerce.number().int().min(2).max(MOST_CLUSTERS).optional(),
});
export const clustersSchema = z
  .object({
    /** The job that gathers so many answers, or the last that did; null where they are gathered at once. */
    job: jobSchema.nullable(),
    /** Whether they are gathered: of many answers that is a job to be asked for. */
    isGathered: z.boolean(),
    /** Among all answers as long as nothing is coded; among those that no code covers afterwards. */
    among: z.enum(['all', 'uncovered']),
    /** How many answers these are, and how many of them could be compared. */
    answers: countSchema,
    compared: countSchema,
    /** Whether they were compared in meaning, and not by their words. */
    isMeaning: z.boolean(),
    silhouette: z.number(),
    /** How many there are, of which those with the most answers are told. */
    found: countSchema,
    clusters: z.array(
      z.object({
        /** Its most telling words. */
        name: z.string(),
        responseIds: longIdsSchema,
        typical: z.array(quotedAnswerSchema),
        /** One that hardly belongs to it. */
        edge: quotedAnswerSchema.nullable(),
      }),
    ),
    /** What was decided of clusters, without its answers. */
    decided: z.array(
      answerClusterSchema
        .pick({ id: true, state: true, name: true })
        .extend({ answers: countSchema }),
    ),
  })
  .meta({ id: 'AnswerClusters' });
export type AnswerClusters = z.infer<typeof clustersSchema>;
export type FoundCluster = AnswerClusters['clusters'][number];

const MOST_REPRESENTATIVES = 12;
export const representativesQuery = withinQuery.extend({
  /** Whose answers; left out for everybody's. */
  of: ruleTextSchema.optional(),
  /** Which answers, as the ledger's address says it; left out for all. */
  filter: textSchema.max(2000).default(''),
  count: z.coerce.number().int().min(1).max(MOST_REPRESENTATIVES).default(6),
});
/** The few answers that together stand for most of the others. */
export const representativesSchema = z
  .object({
    answers: countSchema,
    /** How many are like one of those chosen, these among them. */
    covered: countSchema,
    isMeaning: z.boolean(),
    chosen: z.array(
      z.object({
        answer: quotedAnswerSchema,
        /** Those that are like it, itself first, and like none before it. */
        like: longIdsSchema,
      }),
    ),
  })
  .meta({ id: 'Representatives' });
export type Representatives = z.infer<typeof representativesSchema>;
