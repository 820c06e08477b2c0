import type { SinceParted } from '@yellow-thread/core/merge';

/** What tells a change of one history from all others, and the same change in both. */
export const keyOfChange = (madeAt: string, summary: string): string =>
  `${microsecondsOf(madeAt)} ${summary}`;

/**
 * Whether a change was made, or undone, since the copies parted.
 *
 * @param isUndoneThere whether it is undone in the other history; undefined where that does not have it
 */
export const isSinceParted = (isUndone: boolean, isUndoneThere: boolean | undefined): boolean =>
  isUndoneThere === undefined ? !isUndone : isUndone && !isUndoneThere;

/** A time as PostgreSQL writes it in JSON, whatever the time zone that it is told in. */
function microsecondsOf(time: string): string {
  const [, fraction = ''] = /\.(\d{1,6})/u.exec(time) ?? [];
  const seconds = Math.floor(Date.parse(time) / 1000);
  return `${seconds}.${fraction.padEnd(6, '0')}`;
}

interface Part {
  added?: unknown[];
  updated?: { from?: unknown; to?: unknown }[];
  removed?: unknown[];
}
const TABLES = ['code', 'mention', 'note', 'theme'] as const;

/** Gathers what was done to a side since the copies parted, change by change from the first. */
export class SincePartedBuilder {
  private readonly edited = new Set<string>();
  private readonly removed = new Set<string>();
  private readonly mergedInto = new Map<string, string>();

  /** @param isReversed whether a change from before they parted was undone since */
  add(diff: unknown, isReversed: boolean): void {
    if (!isObject(diff)) return;
    for (const table of TABLES) {
      const part = asPart(diff[table]);
      const [gone, came] = isReversed ? [part.added, part.removed] : [part.removed, part.added];
      for (const id of idsOf(gone)) this.removed.add(id);
      for (const id of idsOf(came)) this.removed.delete(id);
      for (const id of idsOf(part.updated.map(({ from }) => from))) this.edited.add(id);
    }
    if (!isReversed) this.addMerges(asPart(diff['code']), asPart(diff['mention']));
  }

  private addMerges({ removed }: Required<Part>, { updated }: Required<Part>): void {
    const gone = new Set(idsOf(removed));
    if (gone.size === 0) return;
    for (const { from, to } of updated) {
      const [before, after] = [textOf(from, 'codeId'), textOf(to, 'codeId')];
      if (before && after && before !== after && gone.has(before))
        this.mergedInto.set(before, after);
    }
  }

  build(): SinceParted {
    return { edited: this.edited, removed: this.removed, mergedInto: this.mergedInto };
  }
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const asPart = (value: unknown): Required<Part> => {
  const part = isObject(value) ? value : {};
  const list = (name: string) => (Array.isArray(part[name]) ? (part[name] as unknown[]) : []);
  return {
    added: list('added'),
    updated: list('updated').filter(isObject),
    removed: list('removed'),
  };
};

const textOf = (record: unknown, key: string): string | null => {
  const value = isObject(record) ? record[key] : null;
  return typeof value === 'string' ? value : null;
};

const idsOf = (records: readonly unknown[]): string[] =>
  records.flatMap((record) => textOf(record, 'id') ?? []);
