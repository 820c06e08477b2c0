import type { EntityManager } from '@mikro-orm/postgresql';
import { ChangeEntity } from '../database/index.js';
import { personalDataTexts as texts } from '../wording/study.js';
import { theirChanges } from './theirChanges.js';
import type { Traces } from './traces.js';

/**
 * Removes the records of a respondent from all changes of a study. A change that held nothing else stays in the history,
 * says no longer whom it was about, and cannot be undone.
 *
 * @returns how many changes held some
 */
export async function scrubHistory(
  em: EntityManager,
  studyId: number,
  traces: Traces,
): Promise<number> {
  let scrubbed = 0;
  for await (const { id, summary, rest } of theirChanges(em, studyId, traces)) {
    scrubbed += 1;
    const isNamed = traces.externalId !== '' && summary.includes(traces.externalId);
    const isEmpty = Object.keys(rest).length === 0;
    await em.nativeUpdate(
      ChangeEntity,
      { id },
      {
        diff: rest,
        ...(isNamed && { summary: texts.ofDeleted }),
        ...(isEmpty && { undoable: false }),
      },
    );
  }
  return scrubbed;
}
