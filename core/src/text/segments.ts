/** Engines take the square of the length to step through a text: it is given to them a stretch at a time. */
const STRETCH = 1_000;
/** What is longer without any boundary is cut: no sentence or word of a person is. */
const LONGEST = 16_000;

/**
 * The segments of a text by Unicode's rules (UAX #29), as a segmenter finds them, in time that grows with its length.
 * Each stretch begins at a boundary, behind which the rules do not look back.
 *
 * @returns segments with where they begin, in UTF-16 units
 */
export function* segmentsOf(
  segmenter: Intl.Segmenter,
  text: string,
): Generator<{ segment: string; index: number; isWordLike: boolean }> {
  let size = STRETCH;
  for (let from = 0; from < text.length;) {
    const stretch = text.slice(from, from + size);
    const isLast = from + stretch.length === text.length;
    const found = [...segmenter.segment(stretch)];
    // where the stretch ends there may be no boundary
    if (!isLast && found.length > 1) found.pop();
    else if (!isLast && size < LONGEST) {
      size *= 2;
      continue;
    }
    for (const { segment, index, isWordLike = false } of found)
      yield { segment, index: from + index, isWordLike };
    const last = found.at(-1)!;
    from += last.index + last.segment.length;
    size = STRETCH;
  }
}
