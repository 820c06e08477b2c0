import { createHash } from 'node:crypto';
import type { NearestAnswers } from '@yellow-thread/contract';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { CodeEntity, readDataVersion, rows, StudyEntity, withinGroup } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { problems } from '../wording/problems.js';
import { startTimeSlice } from '../timeSlice.js';
import { VersionedCache } from '../versionedCache.js';
import { encoderInUse, type EncoderInUse } from './encoder.js';
import { MOST_NEAREST } from './nearestTexts.js';
import { hashAt, hashOf, keyOf } from './storedVectors.js';
import { vectorsVersion } from './version.js';
import { loadVectors } from './vectors.js';

/** Answers of the same words to a question, all of them near to a code. */
export interface NearAnswers {
  responseIds: number[];
  nearness: number;
}
/** By code, nearest first. */
export type StudyNearest = ReadonlyMap<string, NearAnswers[]>;

const MOST_BYTES = 2 ** 25;
const BYTES_A_TEXT = 100;
const NONE: StudyNearest = new Map();
const cache = new VersionedCache<number, Promise<StudyNearest>>(MOST_BYTES);

interface NearestQuery {
  studyId: number;
  codeId: string;
  questionId: number | null;
  limit: number;
}

/**
 * Open answers near in meaning to what the codebook says of a code, where nothing has been learnt yet. They are shown
 * to be read, and are no suggestions.
 *
 * @param within ids of the respondents whose answers they are; null for everybody
 */
export async function nearestAnswers(
  em: EntityManager,
  threads: Threads,
  { studyId, codeId, questionId, limit }: NearestQuery,
  within: number[] | null,
): Promise<NearestAnswers> {
  const code = await em.findOne(CodeEntity, { id: codeId, studyId });
  if (!code) throw problems.notFound('code');
  const near = (await studyNearest(em, threads, studyId)).get(codeId);
  if (!near) return { isKnown: false, answers: [] };
  const flat = near.flatMap(({ responseIds, nearness }, place) =>
    responseIds.map((id) => ({ id, place, nearness })),
  );
  const { head, values, gave } = withinGroup(within);
  const answers = await rows<NearestAnswers['answers'][number]>(
    em,
    `${head} select min(r.id) as "responseId", r.question_id as "questionId", min(r.text) as text,
       count(*)::int as count, min(n.nearness) as nearness
     from unnest(:ids::int[], :places::int[], :nearness::float8[]) as n(id, place, nearness)
     join response r on r.id = n.id
     where ${gave('r.id')} and (:questionId::int is null or r.question_id = :questionId)
       and (:questions::int[] is null or r.question_id = any(:questions::int[]))
       and not exists (select 1 from settlement t where t.response_id = r.id)
       and not exists (select 1 from mention m where m.response_id = r.id and m.code_id = :codeId)
     group by n.place, r.question_id order by n.place limit :limit`,
    {
      ...values,
      ids: flat.map(({ id }) => id),
      places: flat.map(({ place }) => place),
      nearness: flat.map(({ nearness }) => nearness),
      questionId,
      questions: code.questions ?? null,
      codeId,
      limit,
    },
  );
  return { isKnown: true, answers };
}

/** The answers nearest to each code, settled or not: kept until texts, vectors or the codebook change. */
export async function studyNearest(
  em: EntityManager,
  threads: Threads,
  studyId: number,
): Promise<StudyNearest> {
  const encoder = await encoderInUse();
  if (!encoder) return NONE;
  const codes = (await em.find(CodeEntity, { studyId, archived: false })).map(
    ({ id, name, definition }) => ({ id, texts: [name, definition] }),
  );
  const { answers } = await readDataVersion(em);
  const version = createHash('sha256')
    .update(JSON.stringify([await vectorsVersion(em, studyId), answers, codes]))
    .digest('base64');
  return cache.get(studyId, version, () => {
    const value = findNearest(em, threads, { studyId, encoder, codes });
    return { value, bytes: value.then((found) => BYTES_A_TEXT * MOST_NEAREST * found.size) };
  });
}

async function findNearest(
  em: EntityManager,
  threads: Threads,
  {
    studyId,
    encoder,
    codes,
  }: { studyId: number; encoder: EncoderInUse; codes: { id: string; texts: string[] }[] },
): Promise<StudyNearest> {
  const answers = await answersByHash(em, studyId);
  const vectors = await loadVectors(em, studyId, encoder, [...answers.values()]);
  if (!vectors) return NONE;
  const nearest = await threads.run('nearest', {
    vectors,
    codes: codes.map(({ texts }) => texts),
  });
  return new Map(
    codes.map(({ id }, c) => [
      id,
      Array.from(nearest[c]!.places, (place, i) => ({
        responseIds: answers.get(hashAt(vectors, place))!.responseIds,
        nearness: nearest[c]!.nearness[i]!,
      })),
    ]),
  );
}

/** Answers by what the vector of their text is kept under. */
async function answersByHash(
  em: EntityManager,
  studyId: number,
): Promise<Map<string, { hash: Buffer; responseIds: number[] }>> {
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const stored = await rows<{ text: string; ids: number[] }>(
    em,
    `select min(r.text) as text, array_agg(r.id order by r.id) as ids
     from response r join question q on q.id = r.question_id
     where q.study_id = :studyId and not r.no_answer group by r.question_id, r.text order by min(r.id)`,
    { studyId },
  );
  const found = new Map<string, { hash: Buffer; responseIds: number[] }>();
  const slice = startTimeSlice();
  for (const { text, ids } of stored) {
    const hash = hashOf(blankAsides(text, asides));
    const key = keyOf(hash);
    found.set(key, { hash, responseIds: [...(found.get(key)?.responseIds ?? []), ...ids] });
    if (slice.isOver()) await slice.next();
  }
  return found;
}
