/**
 * Where each of some ids stands, −1 for one that is not among them. Ids of one study lie close together.
 *
 * @param places where they stand; in their own order when left out
 */
export function indexIds(ids: Int32Array, places?: Int32Array): (id: number) => number {
  let [first, last] = [0, -1];
  if (ids.length > 0) [first, last] = [ids[0]!, ids[0]!];
  for (const id of ids) {
    if (id < first) first = id;
    if (id > last) last = id;
  }
  const known = new Int32Array(last - first + 1).fill(-1);
  ids.forEach((id, i) => {
    known[id - first] = places ? places[i]! : i;
  });
  return (id) => known[id - first] ?? -1;
}
