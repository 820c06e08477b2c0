/** Deeper than anything that our own pages send; what checks a body goes down into it. */
const DEEPEST = 40;

/** Whether lists and objects stand within each other deeper than any body needs. */
export function isTooDeep(body: unknown): boolean {
  let level: unknown[] = [body];
  for (let depth = 0; depth <= DEEPEST; depth++) {
    level = level.flatMap((value) =>
      typeof value === 'object' && value !== null && !Buffer.isBuffer(value)
        ? (Object.values(value) as unknown[])
        : [],
    );
    if (level.length === 0) return false;
  }
  return true;
}
