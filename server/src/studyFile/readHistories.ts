import type { SinceParted } from '@yellow-thread/core/merge';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';
import type { Zip } from '../zip.js';
import { eachPage } from './eachPage.js';
import { UUID } from './renumber.js';
import { isSinceParted, keyOfChange, SincePartedBuilder } from './sinceParted.js';
import { rowsOf } from './theirSide.js';

const CHANGES_AT_ONCE = 500;

/** A change of our history, without what it holds. */
interface ListedChange {
  id: number;
  key: string;
  isUndone: boolean;
}

/**
 * What was done to each of two copies since they parted: all that is not in both histories, or undone in one of them.
 *
 * @param originOf what an id of ours was in the study that was copied first
 * @throws Problem bad_study_file
 */
export async function readHistories(
  tx: EntityManager,
  studyId: number,
  zip: Zip,
  originOf: (id: string) => string,
): Promise<{ here: SinceParted; there: SinceParted }> {
  const ours = await listChanges(tx, studyId);
  const isUndoneHere = new Map(ours.map(({ key, isUndone }) => [key, isUndone]));
  const isUndoneThere = new Map<string, boolean>();
  const there = new SincePartedBuilder();
  for await (const { made_at, summary, undone_at, diff } of rowsOf(zip, 'change')) {
    const key = keyOfChange(made_at, summary);
    const isUndone = undone_at !== null;
    isUndoneThere.set(key, isUndone);
    if (isSinceParted(isUndone, isUndoneHere.get(key))) there.add(diff, isUndone);
  }
  const here = new SincePartedBuilder();
  const wanted = ours.filter(({ key, isUndone }) =>
    isSinceParted(isUndone, isUndoneThere.get(key)),
  );
  for (let from = 0; from < wanted.length; from += CHANGES_AT_ONCE) {
    const page = new Map(
      wanted.slice(from, from + CHANGES_AT_ONCE).map(({ id, isUndone }) => [id, isUndone]),
    );
    const diffs = await rows<{ id: number; diff: string }>(
      tx,
      'select id, diff::text as diff from change where id = any(:ids::int[]) order by id',
      { ids: [...page.keys()] },
    );
    for (const { id, diff } of diffs)
      here.add(JSON.parse(diff.replaceAll(UUID, (one) => originOf(one))), page.get(id)!);
  }
  return { here: here.build(), there: there.build() };
}

/** The changes of a study, told apart as those of a file are. */
async function listChanges(tx: EntityManager, studyId: number): Promise<ListedChange[]> {
  const listed: ListedChange[] = [];
  await eachPage<{ id: number; madeAt: string; summary: string; isUndone: boolean }>(
    tx,
    `select id, to_jsonb(made_at)#>>'{}' as "madeAt", summary, undone_at is not null as "isUndone"
     from change where study_id = :studyId order by id`,
    { studyId },
    (page) => {
      for (const { id, madeAt, summary, isUndone } of page)
        listed.push({ id, isUndone, key: keyOfChange(madeAt, summary) });
    },
  );
  return listed;
}
