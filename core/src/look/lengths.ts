const bins = [1, 6, 11, 16, 21, 31, 51];

/**
 * How many answers have how many words: each bin from its number up to the next one's, the last open.
 *
 * @param start where the words of each answer begin, and where the last one's end
 */
export function countLengths(start: Int32Array): { from: number; answers: number }[] {
  const lengths = bins.map((from) => ({ from, answers: 0 }));
  for (let a = 0; a < start.length - 1; a++) {
    const words = start[a + 1]! - start[a]!;
    lengths.findLast((bin) => bin.from <= Math.max(1, words))!.answers += 1;
  }
  return lengths;
}
