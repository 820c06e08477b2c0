import type { TermLines, TermTexts } from '@yellow-thread/core/look';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { orderOf } from '../coding/index.js';
import { indexIds, readDataVersion, row, StudyEntity, unpackInts } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { byDatabase, VersionedCache } from '../versionedCache.js';

/** What was answered to a question, without what the interviewer said. */
export interface LookMaterial {
  /** Changes with what was answered. */
  version: string;
  /** By answer: its id and its respondent's, in the order of respondents. */
  ids: Int32Array;
  respondents: Int32Array;
  texts: string[];
  /** The same as they are written: with what the interviewer said. */
  written: string[];
  /** As words, and as the words of its lines: read on a thread when they are first asked for. */
  terms: () => Promise<TermTexts>;
  lines: () => Promise<TermLines>;
}

const MOST_BYTES = 2 ** 27;
/** Of a character of an answer: its text, and its words twice. */
const BYTES_A_CHARACTER = 5;
const BYTES_AN_ANSWER = 64;

/** By database: what was answered to the questions that were looked at last. */
const cacheOf = byDatabase(() => new VersionedCache<number, Promise<LookMaterial>>(MOST_BYTES));

/** What was answered to a question: read again only after some answer was written, or asides are marked otherwise. */
export async function readLookMaterial(
  em: EntityManager,
  threads: Threads,
  { studyId, questionId }: { studyId: number; questionId: number },
): Promise<LookMaterial> {
  const { answers } = await readDataVersion(em);
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const isMarked = asides.brackets.length + asides.leading.length > 0;
  const version = `${answers} ${JSON.stringify(asides)}`;
  return cacheOf(em).get(questionId, version, () => {
    const value = query();
    return { value, bytes: value.then(bytesOf) };
  });

  async function query(): Promise<LookMaterial> {
    // packed: several times as fast as rows
    const { sizes, packed } = await row<{ sizes: Buffer | null; packed: Buffer | null }>(
      em,
      `select string_agg(convert_to(text, 'UTF8'), '') as packed,
         string_agg(int4send(id) || int4send(respondent_id) || int4send(octet_length(text)), '') as sizes
       from response where question_id = :questionId and not no_answer`,
      { questionId },
    );
    const each = unpackInts(sizes);
    const count = each.length / ANSWER_INTS;
    const starts = new Int32Array(count + 1);
    for (let i = 0; i < count; i++) starts[i + 1] = starts[i]! + each[i * ANSWER_INTS + 2]!;
    const order = orderOf(Int32Array.from({ length: count }, (_, i) => each[i * ANSWER_INTS + 1]!));
    const written: string[] = [];
    const texts: string[] = isMarked ? [] : written;
    const slice = startTimeSlice();
    for (const i of order) {
      const text = packed!.toString('utf8', starts[i], starts[i + 1]);
      written.push(text);
      if (isMarked) texts.push(blankAsides(text, asides));
      if (slice.isOver()) await slice.next();
    }
    return {
      version,
      ids: order.map((i) => each[i * ANSWER_INTS]!),
      respondents: order.map((i) => each[i * ANSWER_INTS + 1]!),
      texts,
      written,
      terms: once(() => threads.run('readTerms', { texts })),
      lines: once(() => threads.run('readTermLines', { texts })),
    };
  }
}

/** Of an answer: its id, its respondent, and the bytes of its text. */
const ANSWER_INTS = 3;

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
