import { z } from 'zod';

const looseRow = z.looseObject({ cells: z.array(z.looseObject({})) });
/** A table as it was frozen before every table had one rule of counting. */
const formerReport = z.looseObject({
  counts: z.undefined().optional(),
  columns: z.array(z.looseObject({ settled: z.number() })),
  rows: z.array(looseRow),
  origins: z.looseObject({ waiting: z.number() }),
  checked: z.unknown(),
});
const formerFrozen = z.looseObject({
  counted: z.array(z.looseObject({ report: formerReport })),
});

/** A frozen copy of whatever age as copies are kept now: its figures and facts stay what they were. */
export function upgradeFrozen(frozen: unknown): unknown {
  const former = formerFrozen.safeParse(frozen);
  if (!former.success) return frozen;
  return {
    ...former.data,
    counted: former.data.counted.map(({ report, ...table }) => ({
      ...table,
      report: {
        ...report,
        counts: 'settled',
        rules: [],
        isMixed: true,
        isFinished: false,
        sample: { drawn: 0, read: 0, isAllSettled: false },
        assisted: 0,
        byModel: 0,
        closed: [],
        // what was checked stands in its facts; of which code it was, was not kept
        checked: [],
        origins: { ...report.origins, notCounted: report.origins.waiting },
        columns: report.columns.map((column) => ({
          ...column,
          counted: column.settled,
          countedWeighted: column['settledWeighted'] ?? column.settled,
          countedEffective: column['settledEffective'] ?? column.settled,
        })),
        rows: report.rows.map((row) => ({
          ...row,
          isAtLeast: false,
          cells: row.cells.map((cell) => ({ ...cell, undecided: 0 })),
        })),
      },
    })),
  };
}
