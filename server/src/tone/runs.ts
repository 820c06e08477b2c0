import type { ToneModel } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { TonePredictionEntity, ToneRunEntity } from '../database/index.js';
import { startTimeSlice } from '../timeSlice.js';
import type { ReadLines } from './lines.js';

/** What the models of tone in force say of the lines of a question; 0 for a line that they did not read. */
export interface ToneLikely {
  positive: Float32Array | null;
  negative: Float32Array | null;
  /** The same by models that did not see the line. */
  unseenPositive: Float32Array | null;
  unseenNegative: Float32Array | null;
}

/** The models in force, and what was measured of them; null before any were trained. */
export async function readToneModel(
  em: EntityManager,
  studyId: number,
): Promise<{ runId: number; model: ToneModel } | null> {
  const run = await em.findOne(ToneRunEntity, { studyId }, { orderBy: { id: 'desc' } });
  if (!run) return null;
  const { id, finishedAt, checked, positive, negative } = run;
  return {
    runId: id,
    model: {
      ...{ trainedAt: finishedAt.toISOString(), checked },
      positive: positive as ToneModel['positive'],
      negative: negative as ToneModel['negative'],
    },
  };
}

/** What a run says of lines as they are now: of those that were cut otherwise since nothing. */
export async function readLikely(
  em: EntityManager,
  { runId, questionId }: { runId: number; questionId: number },
  { material, first, starts }: ReadLines,
): Promise<ToneLikely | null> {
  const stored = await em.findOne(TonePredictionEntity, { runId, questionId });
  if (!stored) return null;
  const responseIds = asInts(stored.responseIds);
  const places = asInts(stored.starts);
  // by answer, where its lines begin and end among those that were kept
  const firstOf = new Map<number, number>();
  for (let line = places.length - 1; line >= 0; line--) firstOf.set(responseIds[line]!, line);
  const now = new Int32Array(starts.length).fill(-1);
  const slice = startTimeSlice();
  for (let a = 0; a < material.ids.length; a++) {
    const id = material.ids[a]!;
    let kept = firstOf.get(id) ?? places.length;
    for (let line = first[a]!; line < first[a + 1]!; line++) {
      while (responseIds[kept] === id && places[kept]! < starts[line]!) kept += 1;
      if (responseIds[kept] === id && places[kept] === starts[line]) now[line] = kept;
    }
    if (slice.isOver()) await slice.next();
  }
  const read = (bytes: Uint8Array | null | undefined): Float32Array | null => {
    if (!bytes) return null;
    const kept = new Float32Array(copyOf(bytes));
    return Float32Array.from(now, (place) => (place < 0 ? 0 : kept[place]!));
  };
  return {
    positive: read(stored.positive),
    negative: read(stored.negative),
    unseenPositive: read(stored.unseenPositive),
    unseenNegative: read(stored.unseenNegative),
  };
}

/** A copy of its own: what comes from the database need not begin where a number may. */
const copyOf = (bytes: Uint8Array): ArrayBuffer => new Uint8Array(bytes).buffer;
const asInts = (bytes: Uint8Array): Int32Array => new Int32Array(copyOf(bytes));
