import type { StudyFileManifest } from '@yellow-thread/contract';
import {
  keyOfSettled,
  mergeCoding,
  type Coding,
  type GivenCode,
  type MergedCoding,
  type SettledAnswer,
} from '@yellow-thread/core/merge';
import type { EntityManager } from '@mikro-orm/postgresql';
import { startTimeSlice } from '../timeSlice.js';
import type { Zip } from '../zip.js';
import { readOurSide, type OurSide } from './ourSide.js';
import { readHistories } from './readHistories.js';
import { readOrigins } from './readOrigins.js';
import { readTheirSide, type TheirSide } from './theirSide.js';

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
  const origins = await readOrigins(em, studyId);
  const histories = await readHistories(em, studyId, zip, (id) => origins.get(id) ?? id);
  const our = await readOurSide(em, studyId, origins);
  const their = await readTheirSide(zip, manifest.people, our);
  const touched = await touchedAnswers(our.coding, their.coding);
  const merged = mergeCoding(
    { ...(await onlyOf(our.coding, touched)), ...histories.here },
    { ...(await onlyOf(their.coding, touched)), ...histories.there },
    (answer, coder) => our.read.has(`${answer} ${coder}`),
  );
  return { manifest, our, their, merged };
}

/** The answers that are not coded and settled alike on both sides: what is the same everywhere needs no merging. */
async function touchedAnswers(here: Coding, there: Coding): Promise<Set<number>> {
  const touched = new Set<number>();
  const slice = startTimeSlice();
  for (const [one, other] of [
    [here, there],
    [there, here],
  ] as const) {
    for (const [id, { answer, codeId, start, end, typical }] of one.mentions) {
      const twin = other.mentions.get(id);
      const isSame =
        twin?.codeId === codeId &&
        twin.start === start &&
        twin.end === end &&
        twin.typical === typical;
      if (!isSame) touched.add(answer);
      if (slice.isOver()) await slice.next();
    }
    const settled = new Set<string>();
    for (const each of other.settlements) {
      settled.add(keyOfSettled(each));
      if (slice.isOver()) await slice.next();
    }
    for (const each of one.settlements) {
      if (!settled.has(keyOfSettled(each))) touched.add(each.answer);
      if (slice.isOver()) await slice.next();
    }
  }
  return touched;
}

/** The coding of some answers alone. */
async function onlyOf(coding: Coding, answers: ReadonlySet<number>): Promise<Coding> {
  const mentions = new Map<string, GivenCode>();
  const slice = startTimeSlice();
  for (const [id, mention] of coding.mentions) {
    if (answers.has(mention.answer)) mentions.set(id, mention);
    if (slice.isOver()) await slice.next();
  }
  const settlements: SettledAnswer[] = [];
  for (const one of coding.settlements) {
    if (answers.has(one.answer)) settlements.push(one);
    if (slice.isOver()) await slice.next();
  }
  return { ...coding, mentions, settlements };
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
