/**
 * Puts one of several things in order before another, or at the end.
 *
 * @param items in their present order
 * @param before null for the end
 * @returns the items whose position changed, with their new positions 1 … n
 * @throws RangeError when either is not among the items
 */
export function placeBefore<Item extends { id: string; position: number }>(
  items: readonly Item[],
  id: string,
  before: string | null,
): Item[] {
  const moving = items.find((item) => item.id === id);
  const others = items.filter((item) => item.id !== id);
  const at = before === null ? others.length : others.findIndex((item) => item.id === before);
  if (!moving || at < 0) throw new RangeError('What is to be moved is not among these.');
  return others
    .toSpliced(at, 0, moving)
    .map((item, i) => ({ ...item, position: i + 1 }))
    .filter((item) => items.find((one) => one.id === item.id)!.position !== item.position);
}
