import { useCallback, useEffect } from 'react';
import { useSearchParams } from 'react-router';

/** Where the last change leads, until it is drawn: a page has one address. */
let coming: URLSearchParams | null = null;

/**
 * What stands in the address behind the question mark, and how to change it in place. The router hands out what was
 * last drawn: a change that comes before the one ahead of it was drawn would undo that, so it is built on it here.
 */
export function useAddress(): [
  URLSearchParams,
  (change: (before: URLSearchParams) => URLSearchParams) => void,
] {
  const [search, setSearch] = useSearchParams();
  const drawn = search.toString();
  useEffect(() => {
    coming = null;
  }, [drawn]);
  const change = useCallback(
    (to: (before: URLSearchParams) => URLSearchParams) =>
      setSearch(
        (before) => {
          const next = to(new URLSearchParams(coming ?? before));
          coming = next.toString() === before.toString() ? null : next;
          return next;
        },
        { replace: true },
      ),
    [setSearch],
  );
  return [search, change];
}
