import { packVector } from '@yellow-thread/core/sentences';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, SentenceVectorEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { encoderInUse, type EncoderInUse } from './encoder.js';
import { startTimeSlice } from '../timeSlice.js';
import { hashOf, keyOf, SharedVectorsBuilder, type SharedVectors } from './storedVectors.js';
import { textsToRead, type TextToRead } from './texts.js';

const PIECE = 128;
/** One more than threads read at a time: none of them waits while another's is being kept. */
const PIECES_AT_ONCE = 3;
/** Texts that tell which language most are in. */
const COMPARED = 200;
/** Where a training misses no more texts than this it reads them itself. */
const MOST_READ_BY_TRAINING = 4000;

/** Rows that are fetched at a time: each is taken apart on the server's own thread. */
const AT_ONCE = 1000;
const hashesOf = (texts: readonly Pick<TextToRead, 'hash'>[], from: number): Buffer[] =>
  texts.slice(from, from + AT_ONCE).map(({ hash }) => hash);

/** The vectors of texts, for threads; null where none has one. */
export async function loadVectors(
  em: EntityManager,
  studyId: number,
  encoder: EncoderInUse,
  texts: readonly Pick<TextToRead, 'hash'>[],
): Promise<SharedVectors | null> {
  const shared = new SharedVectorsBuilder(texts.length);
  for (let from = 0; from < texts.length; from += AT_ONCE)
    shared.add(
      await rows(
        em,
        `select text_hash as "textHash", vector from sentence_vector
         where study_id = :studyId and encoder = :encoder and vector is not null
           and text_hash = any(:hashes::bytea[]) order by text_hash`,
        { studyId, encoder: encoder.id, hashes: hashesOf(texts, from) },
      ),
    );
  return shared.vectors();
}

/** The vectors of a study's answers or lines, for threads; null where nothing is read for meaning. */
export async function vectorsOfTexts(
  em: EntityManager,
  studyId: number,
  texts: readonly string[],
): Promise<SharedVectors | null> {
  const encoder = await encoderInUse();
  if (!encoder) return null;
  const hashes = new Map<string, { hash: Buffer }>();
  const slice = startTimeSlice();
  for (const text of texts) {
    const hash = hashOf(text);
    hashes.set(keyOf(hash), { hash });
    if (slice.isOver()) await slice.next();
  }
  return loadVectors(em, studyId, encoder, [...hashes.values()]);
}

/** Texts that have not been read by an encoder, in a fixed order. */
async function textsMissing(
  em: EntityManager,
  studyId: number,
  encoder: EncoderInUse,
  texts: readonly TextToRead[],
): Promise<TextToRead[]> {
  const known = new Set<string>();
  for (let from = 0; from < texts.length; from += AT_ONCE) {
    const kept = await rows<{ textHash: Buffer }>(
      em,
      `select text_hash as "textHash" from sentence_vector
       where study_id = :studyId and encoder = :encoder and text_hash = any(:hashes::bytea[])`,
      { studyId, encoder: encoder.id, hashes: hashesOf(texts, from) },
    );
    for (const { textHash } of kept) known.add(keyOf(textHash));
  }
  return texts.filter(({ hash }) => !known.has(keyOf(hash)));
}

interface Reading {
  em: EntityManager;
  threads: Threads;
  signal: AbortSignal;
  /** Texts that a thread reads before they are kept: what a kill loses, and what others wait for. */
  piece?: number;
  /** Called when texts are kept. */
  onKept: (texts: number) => void;
}

/**
 * Reads texts on threads and keeps their vectors, a piece at a time. What is kept stays kept when it is stopped.
 *
 * @param others texts by which the language of short ones is told
 */
async function readTexts(
  studyId: number,
  encoder: EncoderInUse,
  { texts, others }: { texts: readonly TextToRead[]; others: readonly TextToRead[] },
  { em, threads, signal, piece: size = PIECE, onKept }: Reading,
): Promise<void> {
  const step = Math.max(1, Math.floor(others.length / COMPARED));
  const compared = others.filter((_, i) => i % step === 0).map(({ text }) => text);
  let next = 0;
  const readPieces = async () => {
    while (next < texts.length) {
      signal.throwIfAborted();
      const piece = texts.slice(next, (next += size));
      const vectors = await threads.run(
        'encode',
        { texts: piece.map(({ text }) => text), others: compared },
        { signal },
      );
      await em.fork().upsertMany(
        SentenceVectorEntity,
        piece.map(({ hash }, i) => ({
          studyId,
          encoder: encoder.id,
          textHash: hash,
          vector: vectors[i] ? Buffer.from(packVector(vectors[i])) : null,
        })),
        { onConflictAction: 'ignore' },
      );
      onKept(piece.length);
    }
  };
  await Promise.all(Array.from({ length: PIECES_AT_ONCE }, readPieces));
}

/** How far the texts of a study are read. */
export interface ReadingProgress {
  done: number;
  of: number;
}

/** Reads what has not been read in a study, and drops vectors of texts that are in it no more. */
export async function readStudy(
  studyId: number,
  reading: Omit<Reading, 'onKept'> & { report: (progress: ReadingProgress) => void },
): Promise<void> {
  const encoder = await encoderInUse();
  if (!encoder) return;
  const { em, report } = reading;
  // what was imported meanwhile is read, too
  for (;;) {
    const texts = await textsToRead(em.fork(), studyId);
    await dropVectors(em.fork(), studyId, encoder, texts);
    const missing = await textsMissing(em.fork(), studyId, encoder, texts);
    if (missing.length === 0) return;
    const answers = texts.filter(({ isAnswer }) => isAnswer);
    const unread = missing.filter(({ isAnswer }) => isAnswer);
    let done = answers.length - unread.length;
    const onKept = (kept: number) => {
      done += kept;
      report({ done: Math.min(done, answers.length), of: answers.length });
    };
    onKept(0);
    // answers first: models can learn from them while lines are still being read
    const order = [...unread, ...missing.filter(({ isAnswer }) => !isAnswer)];
    await readTexts(studyId, encoder, { texts: order, others: answers }, { ...reading, onKept });
  }
}

async function dropVectors(
  em: EntityManager,
  studyId: number,
  encoder: EncoderInUse,
  texts: readonly TextToRead[],
): Promise<void> {
  await rows(
    em,
    `delete from sentence_vector v where study_id = :studyId and (encoder <> :encoder or not exists (
       select 1 from unnest(:hashes::bytea[]) as kept(hash) where kept.hash = v.text_hash))`,
    { studyId, encoder: encoder.id, hashes: texts.map(({ hash }) => hash) },
  );
}

/**
 * The vectors of a question's texts, for threads; null where there are none. A few that are missing are read first, so
 * that the same answers give the same models whether the study has been read or not.
 */
export async function vectorsOfQuestion(
  studyId: number,
  questionId: number,
  { em, threads, signal }: Omit<Reading, 'onKept'>,
): Promise<{ encoder: string; vectors: SharedVectors } | null> {
  const encoder = await encoderInUse();
  if (!encoder) return null;
  const texts = await textsToRead(em, studyId, questionId);
  const answers = texts.filter(({ isAnswer }) => isAnswer);
  const missing = await textsMissing(em, studyId, encoder, texts);
  if (missing.length > 0 && missing.length <= MOST_READ_BY_TRAINING)
    await readTexts(
      studyId,
      encoder,
      { texts: missing, others: answers },
      {
        em,
        threads,
        signal,
        onKept: () => {},
      },
    );
  const vectors = await loadVectors(em, studyId, encoder, texts);
  return vectors && { encoder: encoder.id, vectors };
}
