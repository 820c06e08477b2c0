import { linesOf, type Cut } from '@yellow-thread/core/coding';
import { dotProduct, unpackVector } from '@yellow-thread/core/sentences';
import { blankAsides, withoutWords, type AsideMarks } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { cutsAsJson, rows, StudyEntity } from '../database/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { encoderInUse } from './encoder.js';
import { hashAt, hashOf, keyOf } from './storedVectors.js';
import { loadVectors } from './vectors.js';

/** A line that was coded by hand, or an answer that was coded as a whole. */
export interface CodedLine {
  responseId: number;
  text: string;
  hasCode: boolean;
}

interface StoredAnswer {
  id: number;
  text: string;
  isSettled: boolean;
  passages: { start: number | null; end: number | null }[];
  cuts: Cut[] | null;
}

type HashedLine = CodedLine & { hash: Buffer };
/** The line that is asked about, and what was coded by hand, by the hash of its text. */
interface Lines {
  asked: Buffer | null;
  coded: Map<string, HashedLine>;
}

/**
 * The lines in settled answers to a question by how near in meaning they are to one line of an answer: what explains how
 * its meaning spoke for a code. Lines of the same words stand once; none where the line has not been read for meaning.
 *
 * @param line the place of the line; null for the whole answer
 * @returns nearest first
 */
export async function nearestCodedLines(
  em: EntityManager,
  target: { studyId: number; questionId: number; codeId: string },
  of: { responseId: number; line: number | null },
): Promise<CodedLine[]> {
  const encoder = await encoderInUse();
  const { asked, coded } = await readLines(em, target, of);
  if (!encoder || !asked) return [];
  const vectors = await loadVectors(em, target.studyId, encoder, [
    { hash: asked },
    ...coded.values(),
  ]);
  if (!vectors) return [];
  const bytes = vectors.packed.length / vectors.count;
  const vectorOf = new Map<string, Float32Array>();
  const slice = startTimeSlice();
  for (let place = 0; place < vectors.count; place++) {
    const packed = vectors.packed.subarray(place * bytes, (place + 1) * bytes);
    vectorOf.set(hashAt(vectors, place), unpackVector(packed));
    if (slice.isOver()) await slice.next();
  }
  const wanted = vectorOf.get(keyOf(asked));
  if (!wanted) return [];
  return [...coded]
    .flatMap(([key, { responseId, text, hasCode }]) => {
      const vector = vectorOf.get(key);
      return vector
        ? [{ line: { responseId, text, hasCode }, nearness: dotProduct(wanted, vector) }]
        : [];
    })
    .sort((x, y) => y.nearness - x.nearness || x.line.responseId - y.line.responseId)
    .map(({ line }) => line);
}

async function readLines(
  em: EntityManager,
  { studyId, questionId, codeId }: { studyId: number; questionId: number; codeId: string },
  of: { responseId: number; line: number | null },
): Promise<Lines> {
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const stored = await rows<StoredAnswer>(
    em,
    `select r.id, r.text, t.response_id is not null as "isSettled", ${cutsAsJson} as cuts,
       coalesce((select jsonb_agg(jsonb_build_object('start', m.start, 'end', m."end") order by m.id)
         from mention m where m.response_id = r.id and m.code_id = :codeId), '[]') as passages
     from response r left join settlement t on t.response_id = r.id
     where r.question_id = :questionId and not r.no_answer
       and (t.response_id is not null or r.id = :responseId)
     order by r.id`,
    { questionId, codeId, responseId: of.responseId },
  );
  const words = await rows<{ word: string }>(
    em,
    `select word from excluded_word where study_id = :studyId and (code_id is null or code_id = :codeId)`,
    { studyId, codeId },
  );
  const excluded = new Set(words.map(({ word }) => word));
  const lines: Lines = { asked: null, coded: new Map() };
  const slice = startTimeSlice();
  for (const answer of stored) {
    const isAsked = answer.id === of.responseId;
    for (const [place, { text, hasCode }] of unitsOf(answer, asides, of.line !== null).entries()) {
      const hash = hashOf(withoutWords(text, excluded));
      if (isAsked) {
        if (place === (of.line ?? 0)) lines.asked = hash;
      } else if (answer.isSettled && (hasCode || !lines.coded.has(keyOf(hash))))
        lines.coded.set(keyOf(hash), { responseId: answer.id, text, hasCode, hash });
    }
    if (slice.isOver()) await slice.next();
  }
  return lines;
}

/** What is read of an answer at a time: its lines, or the whole of it where its code is on no line of its own. */
function unitsOf(
  { text, passages, cuts }: StoredAnswer,
  asides: AsideMarks,
  isByLine: boolean,
): { text: string; hasCode: boolean }[] {
  const said = blankAsides(text, asides);
  const whole = [{ text: said, hasCode: passages.length > 0 }];
  const isOnWhole = passages.length > 0 && passages.every(({ start }) => start === null);
  if (!isByLine || isOnWhole) return whole;
  return linesOf(text, asides, cuts ?? [])
    .filter((line) => !line.isAside)
    .map(({ start, end }) => ({
      text: said.slice(start, end),
      hasCode: passages.some((one) => one.start !== null && one.start < end && one.end! > start),
    }));
}
