import { z } from 'zod';

/** A respondent by the id that the survey gave them: also one whose import was undone, of whom there may be traces. */
export const respondentTracesQuery = z.object({ externalId: z.string().min(1).max(1000) });

/** What went with a respondent. */
export const respondentDeletedSchema = z
  .object({
    answers: z.number().int(),
    /** Changes of the history from which their records were removed. */
    changes: z.number().int(),
    /** Write-ups and frozen copies in which their words stood. */
    writeUps: z.number().int(),
  })
  .meta({ id: 'RespondentDeleted' });
export type RespondentDeleted = z.infer<typeof respondentDeletedSchema>;

/** What readers of the study are shown. */
export const privacySchema = z.object({ masksForReaders: z.boolean() });
