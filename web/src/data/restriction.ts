import { useSyncExternalStore } from 'react';

/**
 * The group that a study is restricted to in this tab. Every call about the study carries it, so that every stop and
 * every figure follows; it outlives a reload, not the tab.
 */
const keyOf = (study: number) => `within-${study}`;
const watchers = new Set<() => void>();

export const restrictionOf = (study: number): string | null => sessionStorage.getItem(keyOf(study));

export function restrict(study: number, group: string | null): void {
  if (group === null) sessionStorage.removeItem(keyOf(study));
  else sessionStorage.setItem(keyOf(study), group);
  for (const watch of watchers) watch();
}

export const useRestriction = (study: number): string | null =>
  useSyncExternalStore(
    (watch) => {
      watchers.add(watch);
      return () => watchers.delete(watch);
    },
    () => restrictionOf(study),
  );

/** The group that an address of the API must carry; undefined for none. */
export function groupFor(path: string): string | undefined {
  const study = /^\/api\/studies\/(\d+)/u.exec(path)?.[1];
  return (study && restrictionOf(Number(study))) || undefined;
}
