import type { CodeDifference, MergeSummary } from '@yellow-thread/contract';
import type { MergedCodes } from '@yellow-thread/core/merge';
import { IsolationLevel } from '@mikro-orm/core';
import type { EntityManager } from '@mikro-orm/postgresql';
import { inChange, makeChange, rows } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { mergeTexts } from '../wording/studyFile.js';
import type { Zip } from '../zip.js';
import { changeOfMerge } from './changeOfMerge.js';
import { readChecked } from './readCopy.js';
import { readingsOf, readMerge, type Merge } from './readMerge.js';

/** What bringing a copy in would do. @throws Problem bad_study_file, newer_study_file */
export async function previewMerge(
  em: EntityManager,
  zip: Zip,
  studyId: number,
): Promise<MergeSummary> {
  const manifest = await readChecked(zip);
  return em.transactional(async (tx) => summaryOf(await readMerge(tx, zip, manifest, studyId)), {
    isolationLevel: IsolationLevel.REPEATABLE_READ,
    readOnly: true,
  });
}

/**
 * Brings the coding of a copy into a study, as one change that can be undone: what one side alone did is as it was done
 * there, and answers that both settled apart become second readings. A copy that was brought in before brings nothing.
 *
 * @throws Problem bad_study_file, newer_study_file, nothing_to_merge
 */
export async function mergeCopy(em: EntityManager, zip: Zip, maker: Maker): Promise<MergeSummary> {
  const { studyId } = maker;
  const manifest = await readChecked(zip);
  return inChange(em, async (tx) => {
    const merge = await readMerge(tx, zip, manifest, studyId);
    const summary = summaryOf(merge);
    if (summary.isNothing) throw problems.nothingToMerge(manifest.name);
    const { diff, copied } = await changeOfMerge(tx, maker, merge);
    await rows(
      tx,
      `insert into copied_id (study_id, id, origin)
       select :studyId, * from unnest(:ids::uuid[], :origins::uuid[])
       on conflict (study_id, id) do nothing`,
      { studyId, ids: [...copied.values()], origins: [...copied.keys()] },
    );
    await makeChange(tx, {
      ...maker,
      summary: mergeTexts.merging(manifest.savedAt, manifest.people.slice(0, 3)),
      diff,
    });
    return summary;
  });
}

function summaryOf({ manifest, our, their, merged }: Merge): MergeSummary {
  const { mentions, notes, settlements } = merged;
  const nameThere = (id: string) => their.coding.codes.get(id)?.name ?? '';
  const nameHere = (id: string) => our.coding.codes.get(id)?.name ?? nameThere(id);
  const readings = readingsOf(merged, our);
  const added = merged.newCodes.map(nameThere);
  const count =
    added.length +
    merged.updated.length +
    mentions.added.length +
    mentions.updated.length +
    mentions.removed.length +
    settlements.length +
    notes.added.length +
    notes.updated.length +
    notes.removed.length +
    readings.length;
  return {
    ...{ name: manifest.name, savedAt: manifest.savedAt },
    hasHistory: !manifest.leftOut.includes('history'),
    answers: their.answers,
    codes: {
      added,
      updated: merged.updated.map(differenceOf),
      conflicts: merged.conflicts.map(differenceOf),
      sameName: merged.sameName.map(([there]) => nameThere(there)),
      mergedHere: merged.mergedHere.map(([code, into]) => ({
        ...{ code: nameThere(code), into: nameHere(into) },
      })),
      mergedThere: merged.mergedThere.map(([code, into]) => ({
        ...{ code: nameHere(code), into: nameThere(into) },
      })),
    },
    mentions: {
      ...mentions,
      ...{ added: mentions.added.length, updated: mentions.updated.length },
      removed: mentions.removed.length,
    },
    settled: settlements.length,
    notes: {
      ...{ added: notes.added.length, updated: notes.updated.length },
      removed: notes.removed.length,
    },
    readings: readings.map(({ questionId, coder, answers }) => ({
      ...{ questionId, coder, answers: answers.length },
      agreed: answers.filter(
        ({ here, there }) => here.length === there.length && here.every((id) => there.includes(id)),
      ).length,
    })),
    isNothing: count === 0,
  };
}

function differenceOf({ here, there }: MergedCodes['updated'][number]): CodeDifference {
  const isOther = (...keys: (keyof typeof here)[]) => keys.some((key) => here[key] !== there[key]);
  return {
    ...{ here: here.name, there: there.name },
    what: [
      ...(isOther('name') ? (['name'] as const) : []),
      ...(isOther('themeId') ? (['theme'] as const) : []),
      ...(isOther('definition', 'include', 'exclude') ? (['meaning'] as const) : []),
      ...(isOther('archived') ? (['archived'] as const) : []),
    ],
  };
}
