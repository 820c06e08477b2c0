import { readTerms, tellingWords, type LeftOut } from '../look/index.js';
import type { SentenceVectors } from '../sentences/index.js';
import { bestClusters, clusterRows } from './clusterRows.js';
import { cosineOf, denseRows } from './denseRows.js';

/** Texts that say much the same, by their indices. */
export interface TextCluster {
  /** Its most telling words, strongest first. */
  words: string[];
  members: number[];
  /** The nearest to its centre, and one at its edge. */
  typical: number[];
  edge: number | null;
}

/** All clusters of some texts. */
export interface TextClusters {
  /** Largest first. */
  clusters: TextCluster[];
  silhouette: number;
  /** Whether texts were compared in meaning; by their words otherwise. */
  isMeaning: boolean;
  /** How many texts were compared: those of which something is known. */
  compared: number;
}

const NAMED_BY = 3;
const TYPICAL = 3;

/**
 * Texts gathered by likeness, each cluster named by the words that it uses more than the others (G²).
 *
 * @param others texts beside which a few can be told apart
 * @param k how many clusters; null for the number that the silhouette chooses, at most `most`
 */
export function clusterTexts(
  texts: readonly string[],
  vectors: SentenceVectors | null,
  {
    k,
    most,
    leftOut,
    others = [],
    onProgress,
  }: {
    k: number | null;
    most: number;
    leftOut: LeftOut;
    others?: readonly string[];
    onProgress?: (progress: { done: number; of: number }) => void;
  },
): TextClusters {
  const rows = denseRows(texts, vectors, others);
  const { clusterOf, centres, silhouette } =
    k === null ? bestClusters(rows, most, onProgress) : clusterRows(rows, k);
  const terms = readTerms(texts);
  const members: number[][] = Array.from({ length: centres.length / rows.size }, () => []);
  for (const [t, cluster] of clusterOf.entries()) if (cluster >= 0) members[cluster]!.push(t);
  const clusters = members.flatMap((its, c): TextCluster[] => {
    if (its.length === 0) return [];
    const isIn = new Uint8Array(texts.length);
    for (const t of its) isIn[t] = 1;
    const nearness = new Map(its.map((t) => [t, cosineOf(rows, t, centres, c)]));
    const nearestFirst = its.toSorted((x, y) => nearness.get(y)! - nearness.get(x)! || x - y);
    const typical = different(nearestFirst, texts).slice(0, TYPICAL);
    const edge = nearestFirst.at(-1)!;
    return [
      {
        words: tellingWords(terms, isIn, leftOut, NAMED_BY),
        members: its,
        typical,
        edge: typical.includes(edge) ? null : edge,
      },
    ];
  });
  return {
    clusters: clusters.sort((x, y) => y.members.length - x.members.length),
    silhouette,
    isMeaning: rows.isMeaning,
    compared: members.reduce((sum, its) => sum + its.length, 0),
  };
}

/** Without those of the same words as one before them. */
function different(indices: readonly number[], texts: readonly string[]): number[] {
  const seen = new Set<string>();
  return indices.filter((index) => {
    const text = texts[index]!.toLowerCase();
    const isNew = !seen.has(text);
    seen.add(text);
    return isNew;
  });
}
