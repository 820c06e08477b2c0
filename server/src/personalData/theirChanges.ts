import type { EntityManager } from '@mikro-orm/postgresql';
import { isoTime, rows } from '../database/index.js';
import { startTimeSlice } from '../timeSlice.js';
import type { Traces } from './traces.js';

/** A change of one table as it is kept. */
interface Part {
  added: object[];
  updated: { from: object; to: object }[];
  removed: object[];
}

/** A change that holds records of a respondent, and what it holds without them. */
export interface TheirChange {
  id: number;
  summary: string;
  by: string;
  at: string;
  rest: Record<string, Part>;
}

const AT_ONCE = 200;

/** The changes of a study that hold records of a respondent, from the first. */
export async function* theirChanges(
  em: EntityManager,
  studyId: number,
  { respondentIds, responseIds }: Traces,
): AsyncGenerator<TheirChange> {
  if (respondentIds.length === 0) return;
  const isTheirs = ownRecords(new Set(respondentIds), new Set(responseIds));
  const pattern = [
    ...responseIds.map((id) => `"responseId":\\s*${id}\\M`),
    ...respondentIds.map((id) => `"respondentId":\\s*${id}\\M`),
  ].join('|');
  const slice = startTimeSlice();
  for (let after = 0; ;) {
    const page = await rows<Omit<TheirChange, 'rest'> & { diff: Record<string, Part> }>(
      em,
      `select c.id, c.summary, c.diff, a.name as by, ${isoTime('c.made_at')} as at
       from change c join account a on a.id = c.account_id
       where c.study_id = :studyId and c.id > :after
         and (jsonb_exists(c.touched, 'respondent') or c.diff::text ~ :pattern)
       order by c.id limit ${AT_ONCE}`,
      { studyId, after, pattern },
    );
    for (const { diff, ...change } of page) {
      after = change.id;
      const rest = withoutTheirs(diff, isTheirs);
      if (rest) yield { ...change, rest };
      if (slice.isOver()) await slice.next();
    }
    if (page.length < AT_ONCE) return;
  }
}

type IsTheirs = (table: string, record: object) => boolean;

/** Whether a record is a respondent's, names them, or names an answer of theirs. */
const ownRecords =
  (people: ReadonlySet<number>, answers: ReadonlySet<number>): IsTheirs =>
  (table, record) => {
    const number = (key: string): number => Number(Reflect.get(record, key) ?? 0);
    return (
      (table === 'respondent' && people.has(number('id'))) ||
      people.has(number('respondentId')) ||
      answers.has(number('responseId'))
    );
  };

/** A change without the records of somebody; null where it holds none. */
function withoutTheirs(
  diff: Record<string, Part>,
  isTheirs: IsTheirs,
): Record<string, Part> | null {
  let found = false;
  const kept = Object.entries(diff).flatMap(([table, { added, updated, removed }]) => {
    const keeps = (record: object) => {
      const theirs = isTheirs(table, record);
      found ||= theirs;
      return !theirs;
    };
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
