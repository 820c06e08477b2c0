import { editDistance, foldForMatching } from '../text/index.js';

/** An id of a sheet that may be an id of the study written differently. */
export interface IdProposal {
  from: string;
  to: string;
  why: 'case or white space' | 'zeros or punctuation' | 'one character';
}

const fold = (id: string) => foldForMatching(id).replaceAll(' ', '');
const bare = (id: string) =>
  fold(id)
    .replaceAll(/[\p{P}\p{S}]/gu, '')
    .replaceAll(/(?<!\d)0+(?=\d)/gu, '');

/**
 * Proposes which ids of a sheet are ids of the study written differently: in case or white space, in leading
 * zeros or punctuation, or by one character inserted, deleted or replaced. An id that fits several is left
 * for the researcher, and none is proposed twice.
 *
 * @param unknown ids of the sheet that the study does not have
 * @param free ids of the study that the sheet does not have
 */
export function matchIds(unknown: readonly string[], free: readonly string[]): IdProposal[] {
  const proposals: IdProposal[] = [];
  const open = new Set(unknown);
  const left = new Set(free);
  const propose = (
    why: IdProposal['why'],
    keysOf: (id: string) => Iterable<string>,
    fits: (from: string, to: string) => boolean = () => true,
  ) => {
    const fitting = new Map<string, Set<string>>();
    for (const to of left)
      for (const key of keysOf(to)) {
        const ids = fitting.get(key);
        if (ids) ids.add(to);
        else fitting.set(key, new Set([to]));
      }
    const found: [from: string, to: string][] = [];
    const claims = new Map<string, number>();
    for (const from of open) {
      const candidates = new Set<string>();
      for (const key of keysOf(from))
        for (const to of fitting.get(key) ?? []) if (fits(from, to)) candidates.add(to);
      const [to, another] = candidates;
      if (to === undefined || another !== undefined) continue;
      found.push([from, to]);
      claims.set(to, (claims.get(to) ?? 0) + 1);
    }
    for (const [from, to] of found) {
      if (claims.get(to)! > 1) continue;
      proposals.push({ from, to, why });
      open.delete(from);
      left.delete(to);
    }
  };
  propose('case or white space', (id) => [fold(id)]);
  propose('zeros or punctuation', (id) => [bare(id)]);
  propose('one character', nearKeys, (from, to) => editDistance(fold(from), fold(to), 1) <= 1);
  return proposals;
}

/**
 * Keys that two ids share when they differ by one character: the id, and the id without any one of its
 * characters. Some share one that differ by two, so the distance is looked at besides. In very short ids
 * one character is too much of the whole.
 */
function nearKeys(id: string): Set<string> {
  const folded = fold(id);
  if (folded.length < 4) return new Set();
  const keys = new Set([folded]);
  for (let i = 0; i < folded.length; i++) keys.add(folded.slice(0, i) + folded.slice(i + 1));
  return keys;
}
