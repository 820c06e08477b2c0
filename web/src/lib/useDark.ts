import { useSyncExternalStore } from 'react';

const dark = window.matchMedia('(prefers-color-scheme: dark)');

/** True while the system asks for a dark scheme. */
export function useDark(): boolean {
  return useSyncExternalStore(
    (changed) => {
      dark.addEventListener('change', changed);
      return () => dark.removeEventListener('change', changed);
    },
    () => dark.matches,
  );
}
