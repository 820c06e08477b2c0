import { createHash } from 'node:crypto';
import type { NearestAnswers } from '@yellow-thread/contract';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { CodeEntity, rows, StudyEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { problems } from '../wording/problems.js';
import { startTimeSlice } from '../timeSlice.js';
import { VersionedCache } from '../versionedCache.js';
import { encoderInUse } from './encoder.js';
import { MOST_NEAREST } from './nearestTexts.js';
import { hashAt, hashOf } from './storedVectors.js';
import { textsToRead } from './texts.js';
import { loadVectors } from './vectors.js';

interface StudyNearest {
  byCode: Map<string, { hash: string; nearness: number }[]>;
}

const MOST_BYTES = 2 ** 25;
const BYTES_A_TEXT = 80;
const cache = new VersionedCache<number, Promise<StudyNearest>>(MOST_BYTES);

/**
 * Open answers near in meaning to what the codebook says of a code, where nothing has been learnt yet. They are shown
 * to be read, and are no suggestions.
 *
 * @param limit how many
 */
export async function nearestAnswers(
  em: EntityManager,
  threads: Threads,
  {
    studyId,
    codeId,
    questionId,
    limit,
  }: { studyId: number; codeId: string; questionId: number | null; limit: number },
): Promise<NearestAnswers> {
  const code = await em.findOne(CodeEntity, { id: codeId, studyId });
  if (!code) throw problems.notFound('code');
  const near = (await studyNearest(em, threads, studyId)).byCode.get(codeId);
  if (!near) return { isKnown: false, answers: [] };
  const open = await openAnswers(em, { studyId, codeId, questionId, questions: code.questions });
  const answers = near
    .flatMap(({ hash, nearness }) =>
      (open.get(hash) ?? []).map((answer) => ({ ...answer, nearness })),
    )
    .slice(0, limit);
  return { isKnown: true, answers };
}

/** The texts nearest to each code, of all that is read in a study. */
async function studyNearest(
  em: EntityManager,
  threads: Threads,
  studyId: number,
): Promise<StudyNearest> {
  const none = { byCode: new Map() };
  const encoder = await encoderInUse();
  if (!encoder) return none;
  const codes = (await em.find(CodeEntity, { studyId, archived: false })).map(
    ({ id, name, definition }) => ({ id, texts: [name, definition] }),
  );
  const [{ count } = { count: 0 }] = await rows<{ count: number }>(
    em,
    'select count(*)::int as count from sentence_vector where study_id = :studyId and encoder = :encoder',
    { studyId, encoder: encoder.id },
  );
  const version = createHash('sha256')
    .update(JSON.stringify([encoder.id, count, codes]))
    .digest('base64');
  return cache.get(studyId, version, () => {
    const value = compute();
    return {
      value,
      bytes: value.then(({ byCode }) => BYTES_A_TEXT * MOST_NEAREST * byCode.size),
    };
  });

  async function compute(): Promise<StudyNearest> {
    const texts = (await textsToRead(em, studyId)).filter(({ isAnswer }) => isAnswer);
    const vectors = await loadVectors(em, studyId, encoder!, texts);
    if (!vectors) return none;
    const nearest = await threads.run('nearest', {
      vectors,
      codes: codes.map(({ texts }) => texts),
    });
    const byCode = new Map(
      codes.map(({ id }, c) => [
        id,
        Array.from(nearest[c]!.places, (place, i) => ({
          hash: hashAt(vectors, place),
          nearness: nearest[c]!.nearness[i]!,
        })),
      ]),
    );
    return { byCode };
  }
}

/** Answers that are not settled and do not have the code, by what their vectors are kept under; of equal ones the first. */
async function openAnswers(
  em: EntityManager,
  {
    studyId,
    codeId,
    questionId,
    questions,
  }: {
    studyId: number;
    codeId: string;
    questionId: number | null;
    questions: readonly number[] | null | undefined;
  },
) {
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const stored = await rows<{
    responseId: number;
    questionId: number;
    text: string;
    count: number;
  }>(
    em,
    `select min(r.id) as "responseId", r.question_id as "questionId", min(r.text) as text, count(*)::int as count
     from response r join question q on q.id = r.question_id
     where q.study_id = :studyId and not r.no_answer
       and (:questionId::int is null or q.id = :questionId)
       and (:questions::int[] is null or q.id = any(:questions::int[]))
       and not exists (select 1 from settlement t where t.response_id = r.id)
       and not exists (select 1 from mention m where m.response_id = r.id and m.code_id = :codeId)
     group by r.question_id, r.same order by 1`,
    { studyId, codeId, questionId, questions: questions ?? null },
  );
  const found = new Map<string, (typeof stored)[number][]>();
  const slice = startTimeSlice();
  for (const answer of stored) {
    const hash = hashOf(blankAsides(answer.text, asides)).toString('latin1');
    found.set(hash, [...(found.get(hash) ?? []), answer]);
    if (slice.isOver()) await slice.next();
  }
  return found;
}
