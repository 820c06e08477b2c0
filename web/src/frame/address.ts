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

/** One part of the address; null where it is not there, and takes it off. */
export function useAddressPart(
  part: string,
): [string | null, (value: string | number | null) => void] {
  const [search, changeAddress] = useAddress();
  const change = useCallback(
    (value: string | number | null) =>
      changeAddress((next) => {
        if (value === null || value === '') next.delete(part);
        else next.set(part, String(value));
        return next;
      }),
    [changeAddress, part],
  );
  return [search.get(part), change];
}

/** One part of the address that is one of several words; the first where it is none of them. */
export function useAddressChoice<Value extends string>(
  part: string,
  values: readonly [Value, ...Value[]],
): [Value, (value: Value) => void] {
  const [given, change] = useAddressPart(part);
  return [values.find((value) => value === given) ?? values[0], change];
}

/** The address with one part changed, for a link. */
export function useAddressWith(): (part: string, value: string) => string {
  const [search] = useAddress();
  return (part, value) => {
    const next = new URLSearchParams(search);
    next.set(part, value);
    return `?${next}`;
  };
}
