/** What changed in one table: whole records, so that the change can be reversed without the past. */
export interface TableDiff<R> {
  added: R[];
  updated: { from: R; to: R }[];
  removed: R[];
}

/** What changed in several tables at once, by the table's name. */
export type RecordsDiff<Tables> = { [T in keyof Tables]?: TableDiff<Tables[T]> };

/** The change that undoes `diff`. */
export function reverseRecordsDiff<Tables>(diff: RecordsDiff<Tables>): RecordsDiff<Tables> {
  const reversed: RecordsDiff<Tables> = {};
  for (const table of tablesOf(diff)) {
    const { added, updated, removed } = diff[table]!;
    reversed[table] = {
      added: removed,
      updated: updated.map(({ from, to }) => ({ from: to, to: from })),
      removed: added,
    };
  }
  return reversed;
}

/** True when nothing changes. */
export function isEmptyRecordsDiff<Tables>(diff: RecordsDiff<Tables>): boolean {
  return tablesOf(diff).every((table) => {
    const { added, updated, removed } = diff[table]!;
    return added.length + updated.length + removed.length === 0;
  });
}

/**
 * The records of one table after a change.
 *
 * @param keyOf the value that identifies a record
 */
export function applyTableDiff<R>(
  records: readonly R[],
  diff: TableDiff<R> | undefined,
  keyOf: (record: R) => string,
): R[] {
  if (!diff) return [...records];
  const removed = new Set(diff.removed.map(keyOf));
  const updated = new Map(diff.updated.map(({ to }) => [keyOf(to), to]));
  const added = new Map(diff.added.map((record) => [keyOf(record), record]));
  const kept = records
    .filter((record) => !removed.has(keyOf(record)) && !added.has(keyOf(record)))
    .map((record) => updated.get(keyOf(record)) ?? record);
  return [...kept, ...added.values()];
}

function tablesOf<Tables>(diff: RecordsDiff<Tables>): (keyof Tables)[] {
  return (Object.keys(diff) as (keyof Tables)[]).filter((table) => diff[table] !== undefined);
}
