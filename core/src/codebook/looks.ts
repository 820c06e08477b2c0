/** The twelve inks of themes; each at least 4.5 : 1 on paper. */
export const INKS = [
  '#3F4C9A',
  '#0F716A',
  '#B4472E',
  '#7D3C78',
  '#51701F',
  '#1A66A0',
  '#8F5410',
  '#B0325F',
  '#4D5A68',
  '#256344',
  '#5F4FB0',
  '#75543F',
] as const;

/** The drawn line patterns that mark a theme where colour alone is not enough. */
export const STITCHES = [
  'running',
  'back',
  'dots',
  'cross',
  'zigzag',
  'ladder',
  'chain',
  'feather',
] as const;

export type Ink = (typeof INKS)[number];
export type Stitch = (typeof STITCHES)[number];
export interface Look {
  ink: Ink;
  stitch: Stitch;
}

/** The look of a study's next theme: the ink and the stitch that its themes use least, in order. */
export const nextLook = (taken: readonly Taken[]): Look => lookAssigner(taken)();

interface Taken {
  ink: string;
  stitch: string;
}

/** Gives the looks of a study's next themes, one after the other: see `nextLook`. */
export function lookAssigner(taken: readonly Taken[]): () => Look {
  const nextInk = leastUsed(
    INKS,
    taken.map((theme) => theme.ink),
  );
  const nextStitch = leastUsed(
    STITCHES,
    taken.map((theme) => theme.stitch),
  );
  return () => ({ ink: nextInk(), stitch: nextStitch() });
}

function leastUsed<T extends string>(all: readonly T[], used: readonly string[]): () => T {
  const uses = new Map<string, number>(all.map((one) => [one, 0]));
  const use = (one: string) => uses.set(one, (uses.get(one) ?? 0) + 1);
  used.forEach(use);
  return () => {
    const next = all.reduce((best, one) => (uses.get(one)! < uses.get(best)! ? one : best));
    use(next);
    return next;
  };
}

/** A theme's ink on the present ground: lightened on a dark one, so that it keeps its contrast. */
export function inkOn(ink: string, isDark: boolean): string {
  if (!isDark) return ink;
  const channel = (at: number) => {
    const value = parseInt(ink.slice(at, at + 2), 16);
    return Math.round(value + (255 - value) * 0.52)
      .toString(16)
      .padStart(2, '0');
  };
  return `#${channel(1)}${channel(3)}${channel(5)}`;
}
