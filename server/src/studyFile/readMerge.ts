import type { StudyFileManifest } from '@yellow-thread/contract';
import { mergeCoding, type MergedCoding } from '@yellow-thread/core/merge';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { Zip } from '../zip.js';
import { readChangeKeys, readOurSide, type OurSide } from './ourSide.js';
import { readTheirChanges, readTheirSide, type TheirSide } from './theirSide.js';

/** The two sides of a merge, and what comes of them. */
export interface Merge {
  manifest: StudyFileManifest;
  our: OurSide;
  their: TheirSide;
  merged: MergedCoding;
}

/** Reads both sides, and what comes of bringing theirs into ours. @throws Problem bad_study_file */
export async function readMerge(
  em: EntityManager,
  zip: Zip,
  manifest: StudyFileManifest,
  studyId: number,
): Promise<Merge> {
  const theirs = await readTheirChanges(zip);
  const ours = new Map(
    (await readChangeKeys(em, studyId)).map(({ key, isUndone }) => [key, isUndone]),
  );
  const our = await readOurSide(em, studyId, theirs);
  const their = await readTheirSide(zip, manifest.people, our, ours);
  const merged = mergeCoding(our.side, their.side, (answer, coder) =>
    our.read.has(`${answer} ${coder}`),
  );
  return { manifest, our, their, merged };
}

/** Answers that both settled apart, a reading for each question and each who coded there. */
export interface ReadingOfMerge {
  questionId: number;
  coder: string;
  answers: MergedCoding['doubleCoded'];
}

export function readingsOf({ doubleCoded }: MergedCoding, { answers }: OurSide): ReadingOfMerge[] {
  const questionOf = new Map(
    [...answers].map(([key, { id }]) => [id, Number(key.slice(0, key.indexOf(' ')))]),
  );
  const byKey = new Map<string, ReadingOfMerge>();
  for (const one of doubleCoded) {
    const questionId = questionOf.get(one.answer)!;
    const key = `${questionId} ${one.coder}`;
    const known = byKey.get(key) ?? { questionId, coder: one.coder, answers: [] };
    known.answers.push(one);
    byKey.set(key, known);
  }
  return [...byKey.values()];
}
