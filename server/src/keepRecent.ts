/** Puts something into a map of what was asked for last, and lets go of what was asked for longest ago beyond `most`. */
export function keepRecent<Key, Value>(
  map: Map<Key, Value>,
  key: Key,
  value: Value,
  most: number,
): void {
  map.delete(key);
  map.set(key, value);
  for (const least of [...map.keys()].slice(0, -most)) map.delete(least);
}
