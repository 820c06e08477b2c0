import { z } from 'zod';
import { idSchema, intervalSchema, questionParams, uuidSchema, valueSchema } from '../ids.js';

// A second reading: settled answers coded once more by somebody who does not see how they were coded.

/** A second reading as it is kept. */
export const secondReadingSchema = z
  .object({
    id: uuidSchema,
    studyId: idSchema,
    questionId: idSchema,
    /** Who codes the answers once more. */
    readerId: idSchema,
    /** Who had settled its answers when it was drawn. */
    firstCoders: z.array(idSchema),
    /** How many settled answers there were to draw from. */
    drawnFrom: z.number().int(),
    /** How many were drawn: more than are left where it was ended early; null for readings drawn before this was kept. */
    drawn: z.number().int().nullable().default(null),
    drawnBy: idSchema,
    drawnAt: z.iso.datetime(),
  })
  .meta({ id: 'SecondReading' });
export type SecondReading = z.infer<typeof secondReadingSchema>;

export const secondReadingAnswerSchema = z.object({
  readingId: uuidSchema,
  responseId: idSchema,
  /** How it was coded when it was drawn. */
  firstCodes: z.array(uuidSchema),
  /** What the reader gave it; null while unread. */
  secondCodes: z.array(uuidSchema).nullable(),
  /** Whether a code applies after all, where the two differed and it was talked over. */
  verdicts: z.record(z.string(), z.boolean()),
});
export type SecondReadingAnswer = z.infer<typeof secondReadingAnswerSchema>;

/** A second reading as it is listed. */
export const listedReadingSchema = secondReadingSchema
  .pick({ id: true, readerId: true, drawnFrom: true, drawn: true, drawnAt: true })
  .extend({
    reader: z.string(),
    /** Names of those who settled its answers first. */
    firstCoders: z.array(z.string()),
    size: z.number().int(),
    read: z.number().int(),
  })
  .meta({ id: 'ListedReading' });
export type ListedReading = z.infer<typeof listedReadingSchema>;
export const readingListSchema = z.object({
  /** Newest first. */
  readings: z.array(listedReadingSchema),
});
export type ReadingList = z.infer<typeof readingListSchema>;

export const readingCreateSchema = z.object({
  id: uuidSchema,
  readerId: idSchema,
  size: z.number().int().min(1).max(500),
  /** The same answers as another reading has, so that more than two can be compared. */
  like: uuidSchema.nullable(),
});
export type ReadingCreate = z.infer<typeof readingCreateSchema>;
export const readingParams = questionParams.extend({ reading: uuidSchema });

/** Left out, a reading is compared with who settled its answers first; else with another reading of the same answers. */
export const agreementQuery = z.object({ against: uuidSchema.optional() });

export const agreementFileParams = readingParams.extend({ format: z.enum(['csv', 'xlsx']) });

/** The answers of a reading as its reader sees them: not how they were coded. */
export const readingAnswersSchema = z.object({
  answers: z.array(
    z.object({
      responseId: idSchema,
      externalId: z.string(),
      text: z.string(),
      codes: z.array(uuidSchema).nullable(),
    }),
  ),
});
export type ReadingAnswers = z.infer<typeof readingAnswersSchema>;
export const secondCodingSchema = z.object({
  responseId: idSchema,
  /** None where nothing applies. */
  codes: z.array(uuidSchema).max(200),
});
export type SecondCoding = z.infer<typeof secondCodingSchema>;

const coefficientSchema = z.number().nullable();
export const agreementStateSchema = z.enum(['firm', 'tentative', 'low', 'little_evidence']);

/** How two coders agree on whether something applies. */
export const codeAgreementSchema = z.object({
  n: z.number().int(),
  cells: z.object({
    both: z.number().int(),
    first: z.number().int(),
    second: z.number().int(),
    neither: z.number().int(),
  }),
  agreed: z.number(),
  kappa: coefficientSchema,
  interval: intervalSchema.nullable(),
  alpha: coefficientSchema,
  ac1: coefficientSchema,
  state: agreementStateSchema,
});
export type CodeAgreement = z.infer<typeof codeAgreementSchema>;

/** An answer that the two coded differently, and on which codes. */
export const differingAnswerSchema = z.object({
  responseId: idSchema,
  externalId: z.string(),
  background: z.record(z.string(), valueSchema.nullable()),
  text: z.string(),
  both: z.array(uuidSchema),
  codes: z.array(
    z.object({
      codeId: uuidSchema,
      by: z.enum(['first', 'second']),
      /** Whether it applies after all; null before that was talked over. */
      applies: z.boolean().nullable(),
    }),
  ),
});
export type DifferingAnswer = z.infer<typeof differingAnswerSchema>;

export const agreementSchema = z
  .object({
    reading: listedReadingSchema,
    codes: z.array(codeAgreementSchema.extend({ codeId: uuidSchema })),
    /** Whether any code of a theme was given: two who confuse neighbouring codes agree on the theme. */
    themes: z.array(codeAgreementSchema.extend({ themeId: uuidSchema })),
    overall: codeAgreementSchema,
    /** Answers that both gave exactly the same codes. */
    sameSets: z.object({
      count: z.number().int(),
      n: z.number().int(),
      interval: intervalSchema.nullable(),
    }),
    /** Krippendorff's alpha of whole sets of codes, by MASI distance. */
    alphaOfSets: coefficientSchema,
    /** Of everybody who coded these answers, where those are more than two. */
    everybody: z
      .object({
        coders: z.number().int(),
        alphaOfSets: coefficientSchema,
        codes: z.record(z.string(), coefficientSchema),
      })
      .nullable(),
    differing: z.array(differingAnswerSchema),
    /** Other readings that are done and have some of the same answers: it can be compared with each. */
    others: z.array(
      listedReadingSchema.pick({ id: true, reader: true }).extend({ answers: z.number().int() }),
    ),
  })
  .meta({ id: 'Agreement' });
export type Agreement = z.infer<typeof agreementSchema>;

export const disagreementResolutionSchema = z.object({
  responseId: idSchema,
  codeId: uuidSchema,
  applies: z.boolean(),
});
export type DisagreementResolution = z.infer<typeof disagreementResolutionSchema>;

/** What a write-up says of a second reading. */
export const measuredAgreementSchema = listedReadingSchema
  .pick({ reader: true, firstCoders: true, drawnFrom: true, drawn: true })
  .extend({
    questionId: idSchema,
    label: z.string(),
    sameSets: agreementSchema.shape.sameSets,
    kappa: coefficientSchema,
    interval: intervalSchema.nullable(),
    alphaOfSets: coefficientSchema,
    /** Codes on which the two agree too little to rest anything on. */
    low: z.array(z.string()),
  });
export type MeasuredAgreement = z.infer<typeof measuredAgreementSchema>;
