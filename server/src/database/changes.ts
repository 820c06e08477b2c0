import { isEmptyRecordsDiff, reverseRecordsDiff, type TableDiff } from '@yellow-thread/core/coding';
import type { EntityManager } from '@mikro-orm/postgresql';
import { Problem, problems } from '../wording/problems.js';
import { shapes, type ChangeDiff, type ChangeTables } from './changeTables.js';
import { ChangeEntity } from './entities/index.js';
import { row, rows } from './query.js';
import { deletion, insertion, update, type Statement } from './recordStatements.js';
import { isConstraintError } from './databaseErrors.js';

const tables = Object.keys(shapes) as (keyof ChangeTables)[];

/** Who makes a change, where, and in which tab of theirs: that one knows of it already. */
export interface ChangeMaker {
  studyId: number;
  accountId: number;
  tab?: string | undefined;
}

/**
 * Makes a change and records it. Every record must still be as the change's `from` says.
 *
 * @param em in a transaction
 * @param summary what was done, in words that follow "Undid: "
 * @throws Problem changed_meanwhile when a record is no longer as the change expects it
 */
export async function makeChange(
  em: EntityManager,
  change: ChangeMaker & { summary: string; diff: ChangeDiff },
): Promise<void> {
  if (isEmptyRecordsDiff(change.diff)) return;
  await applyOrThrow(em, change.diff, problems.changedMeanwhile());
  await rows(
    em,
    `update change set abandoned = true
     where study_id = :studyId and account_id = :accountId and undone_at is not null and not abandoned`,
    { studyId: change.studyId, accountId: change.accountId },
  );
  await rows(
    em,
    `insert into change (study_id, account_id, summary, codes, touched, diff)
     values (:studyId, :accountId, :summary, :codes::uuid[], :touched, :diff)`,
    {
      studyId: change.studyId,
      accountId: change.accountId,
      summary: change.summary,
      codes: codesIn(change.diff),
      touched: JSON.stringify(touchedBy(change.diff)),
      diff: JSON.stringify(change.diff),
    },
  );
  await notifyOfChange(em, change, change.diff);
}

/** Notes in the history what was done otherwise than by changing records, and is not undone from there. */
export const noteInHistory = (
  em: EntityManager,
  { studyId, accountId }: ChangeMaker,
  summary: string,
): Promise<unknown> =>
  rows(
    em,
    `insert into change (study_id, account_id, summary, codes, touched, diff, undoable)
     values (:studyId, :accountId, :summary, '{}', '{}', '{}', false)`,
    { studyId, accountId, summary },
  );

interface RecordedChange {
  id: number;
  summary: string;
  diff: ChangeDiff;
}

/**
 * Undoes this person's last change of the study, and says what it was.
 *
 * @param mayReverse whether a change is one that the person may reverse; left out, all are
 * @throws Problem nothing_to_undo, undo_crosses
 */
export async function undoChange(
  em: EntityManager,
  maker: ChangeMaker,
  mayReverse: (diff: ChangeDiff) => boolean = () => true,
) {
  const { studyId, accountId } = maker;
  return em.transactional(async (tx) => {
    await lockHistory(tx, studyId, accountId);
    const [last] = await rows<RecordedChange>(
      tx,
      `select id, summary, diff from change
       where study_id = :studyId and account_id = :accountId and undone_at is null and undoable
       order by id desc limit 1`,
      { studyId, accountId },
    );
    if (!last || !mayReverse(last.diff)) throw problems.nothingToUndo();
    await applyOrThrow(tx, reverseRecordsDiff(last.diff), problems.undoCrosses(last.summary));
    await tx.nativeUpdate(ChangeEntity, { id: last.id }, { undoneAt: new Date() });
    await notifyOfChange(tx, maker, last.diff);
    return { summary: last.summary };
  });
}

/** Makes again what this person undid last, unless they changed something else since. @param mayReverse as for undoing */
export async function redoChange(
  em: EntityManager,
  maker: ChangeMaker,
  mayReverse: (diff: ChangeDiff) => boolean = () => true,
) {
  const { studyId, accountId } = maker;
  return em.transactional(async (tx) => {
    await lockHistory(tx, studyId, accountId);
    const [next] = await rows<RecordedChange>(
      tx,
      `select id, summary, diff from change
       where study_id = :studyId and account_id = :accountId and undone_at is not null and not abandoned
       order by id limit 1`,
      { studyId, accountId },
    );
    if (!next || !mayReverse(next.diff)) throw problems.nothingToRedo();
    await applyOrThrow(tx, next.diff, problems.undoCrosses(next.summary));
    await tx.nativeUpdate(ChangeEntity, { id: next.id }, { undoneAt: null });
    await notifyOfChange(tx, maker, next.diff);
    return { summary: next.summary };
  });
}

type AnyRecord = ChangeTables[keyof ChangeTables];

/** Every record that a change touches, as it is before and after. */
function* recordsIn(diff: ChangeDiff): Generator<AnyRecord> {
  for (const table of tables) yield* recordsOf<AnyRecord>(diff[table]);
}
function* recordsOf<R>(part: TableDiff<R> | undefined): Generator<R> {
  if (!part) return;
  yield* part.added;
  yield* part.removed;
  for (const { from, to } of part.updated) {
    yield from;
    yield to;
  }
}

/** The codes that a change is about: of themselves, or of what depends on them. */
function codesIn(diff: ChangeDiff): string[] {
  const codes = new Set<string>();
  for (const { id } of recordsOf(diff.code)) codes.add(id);
  for (const record of recordsIn(diff))
    if ('codeId' in record && record.codeId) codes.add(record.codeId);
  return [...codes];
}

/**
 * Runs what makes a change in a transaction. The same change sent twice at once, to two servers say, meets itself: it
 * is run again, and finds that it is made.
 */
export async function inChange<Result>(
  em: EntityManager,
  work: (tx: EntityManager) => Promise<Result>,
): Promise<Result> {
  try {
    return await em.transactional(work);
  } catch (error) {
    const isMet = error instanceof Problem && error.code === problems.changedMeanwhile().code;
    if (!isMet) throw error;
    return em.transactional(work);
  }
}

/** How many records of each table a change is about. */
const touchedBy = (diff: ChangeDiff): Record<string, number> =>
  Object.fromEntries(
    Object.entries(diff).map(([table, { added, updated, removed }]) => [
      table,
      added.length + updated.length + removed.length,
    ]),
  );

/** What is told of a change to whoever has the study open, when it is committed. */
export interface ChangeNotification {
  studyId: number;
  accountId: number;
  tab: string | null;
  tables: (keyof ChangeTables | 'membership' | 'session' | 'training_run')[];
  /** The answers that it is about; null when there are too many to be named. */
  responses: number[] | null;
}
export const CHANGE_CHANNEL = 'study_change';
const MOST_NAMED = 300;

/** Tells that somebody may no longer see what they saw: a study's members changed, or, without one, sessions ended. */
export const notifyOfAccess = (em: EntityManager, studyId: number | null): Promise<void> =>
  notify(em, {
    studyId: studyId ?? 0,
    accountId: 0,
    tab: null,
    tables: [studyId === null ? 'session' : 'membership'],
    responses: [],
  });

/** Tells that anything of a study may be other now. */
export const notifyOfAnything = (em: EntityManager, studyId: number): Promise<void> =>
  notify(em, { studyId, accountId: 0, tab: null, tables: [], responses: null });

/** Tells that other models are in force for some question: nobody's change, but what they suggest is other now. */
export const notifyOfRun = (em: EntityManager, studyId: number): Promise<void> =>
  notify(em, {
    studyId,
    accountId: 0,
    tab: null,
    tables: ['training_run'],
    responses: null,
  });

async function notify(em: EntityManager, told: ChangeNotification): Promise<void> {
  await rows(em, 'select pg_notify(:changeChannel, :told)', {
    changeChannel: CHANGE_CHANNEL,
    told: JSON.stringify(told),
  });
}

async function notifyOfChange(
  em: EntityManager,
  maker: ChangeMaker,
  diff: ChangeDiff,
): Promise<void> {
  const responses = new Set<number>();
  for (const record of recordsIn(diff)) {
    if ('responseId' in record && record.responseId) responses.add(record.responseId);
    if (responses.size > MOST_NAMED) break;
  }
  await notify(em, {
    studyId: maker.studyId,
    accountId: maker.accountId,
    tab: maker.tab ?? null,
    tables: tables.filter((table) => diff[table]),
    responses: responses.size > MOST_NAMED ? null : [...responses],
  });
}

/** Two tabs that undo at once take turns. */
const lockHistory = (em: EntityManager, studyId: number, accountId: number) =>
  rows(em, 'select pg_advisory_xact_lock(:studyId, :accountId)', { studyId, accountId });

/** @throws refused when a record is not as the diff expects it, or others stand on it or in its place */
async function applyOrThrow(em: EntityManager, diff: ChangeDiff, refused: Problem): Promise<void> {
  try {
    if (!(await applyDiff(em, diff))) throw refused;
  } catch (error) {
    throw isConstraintError(error) ? refused : error;
  }
}

/** @returns false when some record was not as the diff expects it */
async function applyDiff(em: EntityManager, diff: ChangeDiff): Promise<boolean> {
  let expected = 0;
  let touched = 0;
  const run = async (count: number, { sql, values }: Statement) => {
    expected += count;
    const counted = await row<{ count: number }>(
      em,
      `with touched as (${sql} returning 1) select count(*)::int as count from touched`,
      values,
    );
    touched += counted.count;
  };
  // a mention may go over to another code while its own one goes: keys are checked at the end
  await rows(em, 'set constraints all deferred');
  for (const table of tables.toReversed()) {
    const { removed = [] } = diff[table] ?? {};
    if (removed.length > 0) await run(removed.length, deletion(table, removed));
  }
  for (const table of tables) {
    const { updated = [], added = [] }: Partial<TableDiff<AnyRecord>> = diff[table] ?? {};
    if (updated.length > 0) await run(updated.length, update(table, updated));
    if (added.length > 0) await run(added.length, insertion(table, added));
  }
  if (touched !== expected) return false;
  await rows(em, 'set constraints all immediate');
  return true;
}
