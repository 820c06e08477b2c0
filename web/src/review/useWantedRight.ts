import { useState } from 'react';

const USUAL = 0.8;
const KEY = 'yellow-thread wanted right';

/** The share right that one wants of what is accepted in bulk: kept in this browser. */
export function useWantedRight(): [number, (wanted: number) => void] {
  const [wanted, setWanted] = useState(() => {
    const kept = Number(localStorage.getItem(KEY) ?? USUAL);
    return kept >= 0 && kept <= 1 ? kept : USUAL;
  });
  return [
    wanted,
    (to) => {
      localStorage.setItem(KEY, String(to));
      setWanted(to);
    },
  ];
}
