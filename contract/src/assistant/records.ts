import { z } from 'zod';
import { idSchema, nameSchema, proseSchema, studyParams, uuidSchema } from '../ids.js';

/** A word of a study's own with what it means there. */
export const glossaryTermSchema = z
  .object({
    id: uuidSchema,
    studyId: idSchema,
    term: nameSchema.max(60),
    meaning: proseSchema.trim().min(1).max(500),
  })
  .meta({ id: 'GlossaryTerm' });
export type GlossaryTerm = z.infer<typeof glossaryTermSchema>;
export const glossarySchema = z
  .object({ terms: z.array(glossaryTermSchema) })
  .meta({ id: 'Glossary' });
export type Glossary = z.infer<typeof glossarySchema>;
export const glossaryTermParams = studyParams.extend({ term: uuidSchema });
export const glossaryTermFields = glossaryTermSchema.pick({ term: true, meaning: true });

/** A place in an answer, in UTF-16 units. */
const place = { start: z.number().int(), end: z.number().int() };

/** What may help with an answer that is hard to code; nothing of it is coded by that. */
export const answerHelpSchema = z
  .object({
    /** Who helps. */
    assistant: z.string(),
    /** The line nearest to the whole; null where there are not several. */
    gist: z.object(place).nullable(),
    misspelt: z.array(z.object({ ...place, suggestions: z.array(z.string()) })),
    terms: z.array(z.object({ ...place, term: z.string(), meaning: z.string() })),
    /** The lines nearest to the study's purpose and to what was asked. */
    bearing: z.array(z.object({ ...place, on: z.enum(['purpose', 'question']) })),
    passages: z.array(
      z.object({
        ...place,
        codes: z.array(
          z.object({
            codeId: uuidSchema,
            /** Of the coded lines near to it, weighted by how near they are, how much has the code. */
            share: z.number(),
            reasons: z.array(z.object({ responseId: idSchema, text: z.string() })),
          }),
        ),
      }),
    ),
    /** How many coded lines were compared, and whether in meaning and not by words alone. */
    compared: z.number().int(),
    isMeaning: z.boolean(),
  })
  .meta({ id: 'AnswerHelp' });
export type AnswerHelp = z.infer<typeof answerHelpSchema>;
