import { z } from 'zod';
import { idSchema, nameSchema, proseSchema, studyParams, uuidSchema } from '../ids.js';

export const themeSchema = z
  .object({
    id: uuidSchema,
    studyId: idSchema,
    name: nameSchema,
    ink: z.string(),
    stitch: z.string(),
    position: z.number().int(),
  })
  .meta({ id: 'Theme' });
export type Theme = z.infer<typeof themeSchema>;

export const codeSchema = z
  .object({
    id: uuidSchema,
    studyId: idSchema,
    themeId: uuidSchema.nullable(),
    name: nameSchema,
    definition: proseSchema,
    include: proseSchema,
    exclude: proseSchema,
    position: z.number().int(),
    /** Put away: kept with its mentions, offered no more. */
    archived: z.boolean(),
    /** Questions that it applies to; null for all. */
    questions: z.array(idSchema).nullable(),
  })
  .meta({ id: 'Code' });
export type Code = z.infer<typeof codeSchema>;

/** A code with how often it is used, over all questions. */
export const countedCodeSchema = codeSchema.extend({
  people: z.number().int(),
  mentions: z.number().int(),
  lastUsed: z.iso.datetime().nullable(),
});
export type CountedCode = z.infer<typeof countedCodeSchema>;

/** Codes gathered for a purpose, across themes. */
export const bundleSchema = z
  .object({ id: uuidSchema, studyId: idSchema, name: nameSchema, position: z.number().int() })
  .meta({ id: 'Bundle' });
export type Bundle = z.infer<typeof bundleSchema>;
export interface BundleCode {
  bundleId: string;
  codeId: string;
}
/** A bundle with what is in it and how many people mention any of that. */
const filledBundleSchema = bundleSchema.extend({
  codeIds: z.array(uuidSchema),
  people: z.number().int(),
});
/** A theme with the people who mention any of its codes, counted once, and the mentions of them all. */
const countedThemeSchema = themeSchema.extend({
  people: z.number().int(),
  mentions: z.number().int(),
});

export const codebookSchema = z
  .object({
    themes: z.array(countedThemeSchema),
    codes: z.array(countedCodeSchema),
    bundles: z.array(filledBundleSchema),
  })
  .meta({ id: 'Codebook' });
export type Codebook = z.infer<typeof codebookSchema>;

export const themeCreateSchema = z.object({ id: uuidSchema, name: nameSchema });
export const codeCreateSchema = z.object({
  id: uuidSchema,
  name: nameSchema,
  themeId: uuidSchema.nullable(),
});
export type CodeCreate = z.infer<typeof codeCreateSchema>;

const codeFields = z
  .object({
    name: nameSchema,
    themeId: uuidSchema.nullable(),
    definition: proseSchema,
    include: proseSchema,
    exclude: proseSchema,
    archived: z.boolean(),
    questions: z.array(idSchema).nullable(),
  })
  .partial();

/** An edit says what it changes from, so that nobody overwrites what they have not seen. */
export const codeEditSchema = z.object({ from: codeFields, to: codeFields });
export type CodeEdit = z.infer<typeof codeEditSchema>;

const themeFields = z
  .object({
    name: nameSchema,
    ink: z.string().regex(/^#[0-9A-F]{6}$/iu),
    stitch: z.string().max(20),
  })
  .partial();
export const themeEditSchema = z.object({ from: themeFields, to: themeFields });
export type ThemeEdit = z.infer<typeof themeEditSchema>;

/** Where a code is put: under a theme, before another code or at the end. */
export const codeMoveSchema = z.object({
  themeId: uuidSchema.nullable(),
  before: uuidSchema.nullable(),
});
export const themeMoveSchema = z.object({ before: uuidSchema.nullable() });

/** Two mentions of an answer at the same place become one, where a merge brings them together. */
export const codeMergeSchema = z.object({ into: uuidSchema });
/** What a merge or removal would do. */
export const codeImpactSchema = z.object({
  mentions: z.number().int(),
  people: z.number().int(),
  /** Mentions that would stand twice at one place, and so become one. */
  double: z.number().int(),
  suggestions: z.number().int(),
});
export type CodeImpact = z.infer<typeof codeImpactSchema>;

/**
 * How a mention came about: by hand, by accepting a suggestion after reading it or in bulk, with a sheet
 * that was coded before, or by words that were looked for.
 */
export const originSchema = z.enum(['hand', 'accepted', 'bulk', 'import', 'words']);
export type Origin = z.infer<typeof originSchema>;

/** A mention of a code with the answer that it stands in. */
export const mentionOfCodeSchema = z
  .object({
    id: uuidSchema,
    codeId: uuidSchema,
    responseId: idSchema,
    questionId: idSchema,
    externalId: z.string(),
    text: z.string(),
    start: z.number().int().nullable(),
    end: z.number().int().nullable(),
    typical: z.boolean(),
    origin: originSchema,
  })
  .meta({ id: 'MentionOfCode' });
export type MentionOfCode = z.infer<typeof mentionOfCodeSchema>;
export const mentionsOfCodeSchema = z.object({
  mentions: z.array(mentionOfCodeSchema),
  /** There are more than are listed. */
  more: z.boolean(),
});

/** The mentions of some codes by likeness: to some of them, or else each beside those like it. */
export const mentionOrderQuerySchema = z.object({
  codes: z.array(uuidSchema).min(1).max(500),
  like: z.array(uuidSchema).min(1).max(20_000).nullable(),
});
export type MentionOrderQuery = z.infer<typeof mentionOrderQuerySchema>;
export const mentionOrderSchema = z.object({ mentions: z.array(uuidSchema) });

/** Sorts mentions into codes, which may be new: to split a code, or to sort a whole theme. */
export const mentionSortSchema = z.object({
  parts: z
    .array(z.object({ code: codeCreateSchema, mentions: z.array(uuidSchema).min(1).max(20_000) }))
    .min(1)
    .max(50),
});
export type MentionSort = z.infer<typeof mentionSortSchema>;

export const bundleFields = z.object({ name: nameSchema, codeIds: z.array(uuidSchema).max(1000) });
export const bundleCreateSchema = bundleFields.extend({ id: uuidSchema });
export type BundleCreate = z.infer<typeof bundleCreateSchema>;

/** A code under one of the keys 1 to 9, for one person. */
export const pinsSchema = z.object({
  pins: z.array(z.object({ key: z.number().int().min(1).max(9), codeId: uuidSchema })),
});
export const pinParams = studyParams.extend({ key: z.coerce.number().int().min(1).max(9) });
export const pinSchema = z.object({ codeId: uuidSchema.nullable() });

export const codeParams = studyParams.extend({ code: uuidSchema });
export const themeParams = studyParams.extend({ theme: uuidSchema });
export const bundleParams = studyParams.extend({ bundle: uuidSchema });

export const codebookFormatSchema = z.enum(['csv', 'xlsx', 'html', 'docx', 'qdc']);
export type CodebookFormat = z.infer<typeof codebookFormatSchema>;
export const codebookFileParams = studyParams.extend({ format: codebookFormatSchema });

/** A code as a code list from elsewhere gives it. */
export const listedCodeSchema = z.object({
  theme: nameSchema.nullable(),
  name: nameSchema,
  definition: proseSchema,
  include: proseSchema,
  exclude: proseSchema,
  /** Names of the bundles that it is in. */
  bundles: z.array(nameSchema).max(50).default([]),
});
export type ListedCode = z.infer<typeof listedCodeSchema>;
/** A code list that was read, with what taking it in would do to each of its codes. */
export const codeListSchema = z
  .object({
    codes: z.array(
      listedCodeSchema.extend({
        /** `new`; `known` with nothing to add; `filled` where only blank texts are filled in. */
        what: z.enum(['new', 'known', 'filled']),
      }),
    ),
    newThemes: z.array(z.string()),
    newBundles: z.array(z.string()),
    /** How often a code would be put into a bundle in which it is not yet. */
    intoBundles: z.int(),
    /** Rows or codes that could not be taken, and why. */
    left: z.array(z.string()),
  })
  .meta({ id: 'CodeList' });
export type CodeList = z.infer<typeof codeListSchema>;
export const takeCodeListSchema = z.object({ codes: z.array(listedCodeSchema).min(1).max(5000) });
