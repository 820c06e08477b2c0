import { z } from 'zod';
import { idSchema, nameSchema, proseSchema, studyParams, uuidSchema } from './ids.js';

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
  })
  .meta({ id: 'Code' });
export type Code = z.infer<typeof codeSchema>;

/** A code with how often it is used, over all questions. */
export const countedCodeSchema = codeSchema.extend({
  people: z.number().int(),
  mentions: z.number().int(),
});
export type CountedCode = z.infer<typeof countedCodeSchema>;

export const codebookSchema = z
  .object({ themes: z.array(themeSchema), codes: z.array(countedCodeSchema) })
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
  })
  .partial();

/** An edit says what it changes from, so that nobody overwrites what they have not seen. */
export const codeEditSchema = z.object({ from: codeFields, to: codeFields });
export type CodeEdit = z.infer<typeof codeEditSchema>;

export const themeEditSchema = z.object({
  from: z.object({ name: nameSchema }),
  to: z.object({ name: nameSchema }),
});

export const codeParams = studyParams.extend({ code: uuidSchema });
export const themeParams = studyParams.extend({ theme: uuidSchema });
