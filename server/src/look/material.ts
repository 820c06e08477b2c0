import type { TermLines, TermTexts } from '@yellow-thread/core/look';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { indexIds, readDataVersion, rows, StudyEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { VersionedCache } from '../versionedCache.js';

/** What was answered to a question, without what the interviewer said. */
export interface LookMaterial {
  /** Changes with what was answered. */
  version: string;
  /** By answer: its id and its respondent's, in the order of respondents. */
  ids: Int32Array;
  respondents: Int32Array;
  texts: string[];
  /** As words, and as the words of its lines: read on a thread when they are first asked for. */
  terms: () => Promise<TermTexts>;
  lines: () => Promise<TermLines>;
}

const MOST_BYTES = 2 ** 27;
/** Of a character of an answer: its text, and its words twice. */
const BYTES_A_CHARACTER = 5;
const BYTES_AN_ANSWER = 64;

/** By database: what was answered to the questions that were looked at last. */
const caches = new WeakMap<object, VersionedCache<number, Promise<LookMaterial>>>();

/** What was answered to a question: read again only after some answer was written, or asides are marked otherwise. */
export async function readLookMaterial(
  em: EntityManager,
  threads: Threads,
  { studyId, questionId }: { studyId: number; questionId: number },
): Promise<LookMaterial> {
  const { answers } = await readDataVersion(em);
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const version = `${answers} ${JSON.stringify(asides)}`;
  const cache = caches.get(em.config) ?? new VersionedCache(MOST_BYTES);
  caches.set(em.config, cache);
  return cache.get(questionId, version, () => {
    const value = query();
    return { value, bytes: value.then(bytesOf) };
  });

  async function query(): Promise<LookMaterial> {
    const found = await rows<{ id: number; respondentId: number; text: string }>(
      em,
      `select id, respondent_id as "respondentId", text from response
       where question_id = :questionId and not no_answer order by respondent_id`,
      { questionId },
    );
    const texts: string[] = [];
    const slice = startTimeSlice();
    for (const { text } of found) {
      texts.push(blankAsides(text, asides));
      if (slice.isOver()) await slice.next();
    }
    return {
      version,
      ids: Int32Array.from(found, ({ id }) => id),
      respondents: Int32Array.from(found, ({ respondentId }) => respondentId),
      texts,
      terms: once(() => threads.run('readTerms', { texts })),
      lines: once(() => threads.run('readTermLines', { texts })),
    };
  }
}

const bytesOf = ({ texts }: LookMaterial): number =>
  texts.reduce(
    (sum, text) => sum + BYTES_A_CHARACTER * text.length,
    BYTES_AN_ANSWER * texts.length,
  );

/** What is read once, unless it fails. */
function once<Value>(read: () => Promise<Value>): () => Promise<Value> {
  let kept: Promise<Value> | null = null;
  return () => {
    const value = (kept ??= read());
    value.catch(() => {
      if (kept === value) kept = null;
    });
    return value;
  };
}

/** By answer, 1 for those of some respondents; null for all. */
export function answersOf(
  { respondents }: LookMaterial,
  within: readonly number[] | null,
): Uint8Array | null {
  if (!within) return null;
  const included = new Uint8Array(respondents.length);
  const indexOf = indexIds(respondents);
  for (const id of within) {
    const i = indexOf(id);
    if (i >= 0) included[i] = 1;
  }
  return included;
}
