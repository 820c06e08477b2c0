/**
 * Items that stand for all: of more than so many, evenly spaced ones, in their order.
 *
 * @example
 *   evenly(['a', 'b', 'c', 'd'], 2) // ['a', 'c']
 */
export function evenly<Item>(items: readonly Item[], most: number): readonly Item[] {
  if (items.length <= most) return items;
  const step = items.length / most;
  return Array.from({ length: most }, (_, i) => items[Math.floor(i * step)]!);
}
