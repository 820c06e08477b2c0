import { evenly, randomSource } from '../statistics/index.js';
import { cosineOf, normalise, type DenseRows } from './denseRows.js';

/** Rows that lie near each other. */
export interface Clusters {
  /** By row, its cluster; −1 for a row of zeros. */
  clusterOf: Int32Array;
  /** The means of the clusters, scaled to length 1, one after the other. */
  centres: Float32Array;
  /** The mean of the silhouettes of an evenly spaced sample: −1 to 1. */
  silhouette: number;
}

const ROUNDS = 25;
/** Rows that the centres are computed of; all others are then put to the nearest. */
const MOST_FITTED = 6000;
const MOST_JUDGED = 600;
/** The centres stand still when no more of the rows than this change their cluster. */
const AT_REST = 0.001;
/** More clusters than this leaves to each are not tried. */
const FEWEST_EACH = 3;

/**
 * Clusters rows by the cosine: spherical k-means from seeded starts (k-means++). Deterministic.
 *
 * @param k how many clusters; fewer where there are not as many different rows
 * @see Dhillon & Modha (2001) Concept decompositions for large sparse text data; Arthur & Vassilvitskii (2007)
 *   k-means++; Rousseeuw (1987) Silhouettes
 */
export function clusterRows(rows: DenseRows, k: number): Clusters {
  const known = knownRows(rows);
  return assignAll(rows, known, fitClusters(rows, evenly(known, MOST_FITTED), k));
}

/**
 * Clusters rows with the number of clusters whose silhouette is the best.
 *
 * @param most clusters that are tried
 * @param onTried called after each number of clusters
 */
export function bestClusters(
  rows: DenseRows,
  most: number,
  onTried: (progress: { done: number; of: number }) => void = () => {},
): Clusters {
  const known = knownRows(rows);
  const fitted = evenly(known, MOST_FITTED);
  const different = Math.max(2, Math.min(most, Math.floor(known.length / FEWEST_EACH)));
  let best = fitClusters(rows, fitted, 2);
  for (let k = 3; k <= different; k++) {
    const found = fitClusters(rows, fitted, k);
    if (found.silhouette > best.silhouette) best = found;
    onTried({ done: k, of: different });
  }
  return assignAll(rows, known, best);
}

/** Clusters of some of the rows; the others have none yet. */
function fitClusters(rows: DenseRows, fitted: readonly number[], k: number): Clusters {
  const centres = startingCentres(rows, fitted, k);
  const clusterOf = new Int32Array(rows.count).fill(-1);
  for (let round = 0; round < ROUNDS; round++) {
    let moved = 0;
    for (const i of fitted) {
      const nearest = nearestCentre(rows, i, centres);
      if (clusterOf[i] !== nearest) moved += 1;
      clusterOf[i] = nearest;
    }
    if (moved <= AT_REST * fitted.length) break;
    moveCentres(rows, fitted, clusterOf, centres);
  }
  return { clusterOf, centres, silhouette: silhouetteOf(rows, fitted, clusterOf) };
}

function assignAll(
  rows: DenseRows,
  known: readonly number[],
  { clusterOf, ...found }: Clusters,
): Clusters {
  for (const i of known)
    if (clusterOf[i]! < 0) clusterOf[i] = nearestCentre(rows, i, found.centres);
  return { ...found, clusterOf };
}

function knownRows({ size, count, values }: DenseRows): number[] {
  const known: number[] = [];
  for (let i = 0; i < count; i++)
    for (let d = 0; d < size; d++)
      if (values[i * size + d] !== 0) {
        known.push(i);
        break;
      }
  return known;
}

function startingCentres(rows: DenseRows, from: readonly number[], k: number): Float32Array {
  const { size, values } = rows;
  const next = randomSource(1);
  const centres: number[] = [];
  const distance = new Float64Array(from.length).fill(2);
  const take = (place: number) => {
    const row = values.subarray(from[place]! * size, (from[place]! + 1) * size);
    centres.push(...row);
    for (const [i, member] of from.entries())
      distance[i] = Math.min(distance[i]!, Math.max(0, 1 - cosineOf(rows, member, row, 0)));
  };
  if (from.length > 0) take(0);
  while (centres.length < k * size) {
    const all = distance.reduce((sum, one) => sum + one, 0);
    // rows that are all the same as some centre need no other
    if (all < 1e-6) break;
    let left = (next() / 2 ** 32) * all;
    const place = distance.findIndex((one) => (left -= one) < 0);
    take(place >= 0 ? place : distance.indexOf(Math.max(...distance)));
  }
  return Float32Array.from(centres);
}

function nearestCentre(rows: DenseRows, i: number, centres: Float32Array): number {
  let best = 0;
  let nearest = -Infinity;
  for (let c = 0; c * rows.size < centres.length; c++) {
    const cosine = cosineOf(rows, i, centres, c);
    if (cosine > nearest) [best, nearest] = [c, cosine];
  }
  return best;
}

function moveCentres(
  { size, values }: DenseRows,
  members: readonly number[],
  clusterOf: Int32Array,
  centres: Float32Array,
): void {
  const sums = new Float32Array(centres.length);
  for (const i of members)
    for (let d = 0, a = i * size, b = clusterOf[i]! * size; d < size; d++)
      sums[b + d]! += values[a + d]!;
  for (let first = 0; first < centres.length; first += size) {
    const centre = sums.subarray(first, first + size);
    normalise(centre);
    // one that nobody is nearest to stays where it was
    if (centre.some((one) => one !== 0)) centres.set(centre, first);
  }
}

/**
 * The mean silhouette of an evenly spaced sample by the cosine distance: how much nearer rows are to their own cluster
 * than to the nearest other one. One alone in its cluster has 0.
 *
 * @see Rousseeuw (1987) Silhouettes: a graphical aid to the interpretation and validation of cluster analysis
 */
export function silhouetteOf(
  rows: DenseRows,
  members: readonly number[],
  clusterOf: Int32Array,
): number {
  const judged = evenly(members, MOST_JUDGED);
  const clusters = Math.max(-1, ...judged.map((i) => clusterOf[i]!)) + 1;
  if (judged.length === 0 || clusters < 2) return 0;
  let sum = 0;
  for (const i of judged) {
    const distances = new Float64Array(clusters);
    const counts = new Int32Array(clusters);
    for (const j of judged) {
      if (i === j) continue;
      distances[clusterOf[j]!]! += 1 - cosineOf(rows, i, rows.values, j);
      counts[clusterOf[j]!]! += 1;
    }
    const own = clusterOf[i]!;
    if (counts[own] === 0) continue;
    const within = distances[own]! / counts[own]!;
    let other = Infinity;
    for (let c = 0; c < clusters; c++)
      if (c !== own && counts[c]! > 0) other = Math.min(other, distances[c]! / counts[c]!);
    if (other < Infinity) sum += (other - within) / Math.max(other, within, 1e-12);
  }
  return sum / judged.length;
}
