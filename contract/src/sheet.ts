import { z } from 'zod';
import { idSchema, studyParams } from './ids.js';

export const columnRoleSchema = z.enum([
  'id',
  'question',
  'category',
  'number',
  'date',
  'yes_no',
  'weight',
  'leave_out',
]);
export type ColumnRole = z.infer<typeof columnRoleSchema>;

/** An uploaded sheet that is not yet brought in. */
export const sheetSchema = z
  .object({
    id: idSchema,
    fileName: z.string(),
    rows: z.number().int(),
    columns: z.array(z.object({ name: z.string(), role: columnRoleSchema, reason: z.string() })),
    /** The first rows, as text. */
    preview: z.array(z.array(z.string())),
  })
  .meta({ id: 'Sheet' });
export type Sheet = z.infer<typeof sheetSchema>;

export const sheetParams = studyParams.extend({ sheet: idSchema });
export const rolesSchema = z.object({ roles: z.array(columnRoleSchema).max(2000) });

export const findingSchema = z.object({
  code: z.string(),
  kind: z.enum(['stop', 'notice']),
  sentence: z.string(),
  /** How many rows, and the numbers of the first of them. */
  count: z.number().int(),
  rows: z.array(z.number().int()),
});
export type Finding = z.infer<typeof findingSchema>;

/** What bringing the sheet in would write. */
export const sheetCheckSchema = z
  .object({
    respondents: z.number().int(),
    questions: z.array(
      z.object({ wording: z.string(), answered: z.number().int(), noAnswer: z.number().int() }),
    ),
    variables: z.array(z.object({ name: z.string(), values: z.number().int() })),
    findings: z.array(findingSchema),
  })
  .meta({ id: 'SheetCheck' });
export type SheetCheck = z.infer<typeof sheetCheckSchema>;
