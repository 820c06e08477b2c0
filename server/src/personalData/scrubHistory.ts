import type { EntityManager } from '@mikro-orm/postgresql';
import { ChangeEntity, rows } from '../database/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { personalDataTexts as texts } from '../wording/study.js';
import type { Traces } from './traces.js';

/** A change of one table as it is kept. */
interface Part {
  added: object[];
  updated: { from: object; to: object }[];
  removed: object[];
}

const AT_ONCE = 200;

/** Whose records are a respondent's, beside those that name an answer or the respondent. */
const OWN_TABLE = 'respondent';

/**
 * Removes the records of a respondent from all changes of a study. A change that held nothing else stays in the history,
 * says no longer whom it was about, and cannot be undone.
 *
 * @returns how many changes held some
 */
export async function scrubHistory(
  em: EntityManager,
  studyId: number,
  { externalId, respondentIds, responseIds }: Traces,
): Promise<number> {
  if (respondentIds.length === 0) return 0;
  const people = new Set(respondentIds);
  const answers = new Set(responseIds);
  const isTheirs = (table: string, record: object): boolean => {
    const id = (key: string): number => Number(Reflect.get(record, key) ?? 0);
    return (
      (table === OWN_TABLE && people.has(id('id'))) ||
      people.has(id('respondentId')) ||
      answers.has(id('responseId'))
    );
  };
  const keys = [
    ...responseIds.map((id) => `"responseId":\\s*${id}\\M`),
    ...respondentIds.map((id) => `"respondentId":\\s*${id}\\M`),
  ];
  const pattern = keys.join('|');
  const slice = startTimeSlice();
  let scrubbed = 0;
  for (let after = 0; ;) {
    const page = await rows<{ id: number; summary: string; diff: Record<string, Part> }>(
      em,
      `select id, summary, diff from change
       where study_id = :studyId and id > :after
         and (jsonb_exists(touched, '${OWN_TABLE}') or diff::text ~ :pattern)
       order by id limit ${AT_ONCE}`,
      { studyId, after, pattern },
    );
    for (const { id, summary, diff } of page) {
      after = id;
      const kept = withoutTheirs(diff, isTheirs);
      if (!kept) continue;
      scrubbed += 1;
      const isEmpty = Object.keys(kept).length === 0;
      await em.nativeUpdate(
        ChangeEntity,
        { id },
        {
          diff: kept,
          summary: summary.includes(externalId) && externalId !== '' ? texts.ofDeleted : summary,
          ...(isEmpty && { undoable: false }),
        },
      );
      if (slice.isOver()) await slice.next();
    }
    if (page.length < AT_ONCE) return scrubbed;
  }
}

/** A change without the records of somebody; null where it holds none. */
function withoutTheirs(
  diff: Record<string, Part>,
  isTheirs: (table: string, record: object) => boolean,
): Record<string, Part> | null {
  let found = false;
  const keep = (table: string) => (record: object) => {
    const theirs = isTheirs(table, record);
    found ||= theirs;
    return !theirs;
  };
  const kept = Object.entries(diff).flatMap(([table, { added, updated, removed }]) => {
    const keeps = keep(table);
    const part: Part = {
      added: added.filter(keeps),
      updated: updated.filter(({ from, to }) => keeps(from) && keeps(to)),
      removed: removed.filter(keeps),
    };
    const isEmpty = part.added.length + part.updated.length + part.removed.length === 0;
    return isEmpty ? [] : [[table, part] as const];
  });
  return found ? Object.fromEntries(kept) : null;
}
