/** A mention as far as a merge looks at it. */
export interface PlacedMention {
  id: string;
  responseId: number;
  coderId: number;
  start: number | null;
  end: number | null;
}

/**
 * What becomes of mentions that go over to another code: one that would stand beside another of the same
 * coder at the same place is a duplicate, and is dropped.
 *
 * @param moving mentions of the codes that are merged
 * @param standing mentions that the receiving code has already
 */
export function mergeMentions<M extends PlacedMention>(
  moving: readonly M[],
  standing: readonly PlacedMention[],
): { moved: M[]; double: M[] } {
  const places = new Set(standing.map(placeOf));
  const moved: M[] = [];
  const double: M[] = [];
  for (const mention of moving) {
    const place = placeOf(mention);
    if (places.has(place)) double.push(mention);
    else {
      places.add(place);
      moved.push(mention);
    }
  }
  return { moved, double };
}

const placeOf = ({ responseId, coderId, start, end }: PlacedMention) =>
  `${responseId} ${coderId} ${start} ${end}`;
