import type { EntityManager } from '@mikro-orm/postgresql';
import { indexIds, readDataVersion, row, unpackInts, type SqlValues } from '../database/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { byDatabase, VersionedCache } from '../versionedCache.js';
import { orderOf } from './orderOf.js';

/** What coding does not change of the answers to a question, in the order in which they came. */
export interface QuestionAnswers {
  ids: Int32Array;
  /** Where the answer of an id stands; −1 for one to another question. */
  indexOf: (id: number) => number;
  /** In characters. */
  lengths: Int32Array;
  /** Where the first answer of the same words stands. */
  first: Int32Array;
  /** 1 for one that says nothing. */
  noAnswer: Uint8Array;
  /** What all of them say; null when that is too much to be kept. */
  texts: (em: EntityManager) => Promise<AnswerTexts | null>;
}

/** Texts one after the other, letters of ASCII in lower case. */
export interface AnswerTexts {
  /** Where the texts belong in the answers of their question. */
  indices: Int32Array;
  bytes: Buffer;
  /** Text t stands from byte `starts[t]` to `starts[t + 1]`. */
  starts: Int32Array;
  /** 1 for one without any other character. */
  isAscii: Uint8Array;
}

/** By database: the answers to questions that were read last. */
const cacheOf = byDatabase(() => new VersionedCache<number, Promise<QuestionAnswers>>(MOST_BYTES));
const MOST_BYTES = 2 ** 27;
/** Of an answer without its text, and of a character of it. */
const BYTES_EACH = 32;
const BYTES_A_CHARACTER = 2;
/** Characters of texts that are kept, or read at once. */
const MOST_CHARACTERS = 2 ** 24;

/** The answers to a question: read again only after some answer, of whatever study, was written. */
export async function readQuestionAnswers(
  em: EntityManager,
  questionId: number,
): Promise<QuestionAnswers> {
  const { snapshot, answers: version } = await readDataVersion(em);
  // what stands within a change that is being made is seen by that change alone
  if (snapshot === null) return queryAnswers(em, questionId);
  return cacheOf(em).get(questionId, version, () => {
    const value = queryAnswers(em, questionId);
    return { value, bytes: value.then(bytesOf) };
  });
}

/** With the texts, where these are kept once somebody searches in them. */
function bytesOf({ ids, lengths }: QuestionAnswers): number {
  const characters = lengths.reduce((sum, length) => sum + length, 0);
  return (
    BYTES_EACH * ids.length + (characters > MOST_CHARACTERS ? 0 : BYTES_A_CHARACTER * characters)
  );
}

const ANSWER_BYTES = 20;
/** Id, bytes and characters of a text. */
const TEXT_INTS = 3;

async function queryAnswers(em: EntityManager, questionId: number): Promise<QuestionAnswers> {
  // packed: five times as fast as rows
  const { packed } = await row<{ packed: Buffer | null }>(
    em,
    `select string_agg(int4send(id) || int4send(respondent_id)
       || int4send(case when no_answer then -1 - length(text) else length(text) end)
       || int8send(same), '') as packed
     from response where question_id = :questionId`,
    { questionId },
  );
  const bytes = packed ?? Buffer.alloc(0);
  const total = bytes.length / ANSWER_BYTES;
  const respondents = new Int32Array(total);
  for (let i = 0; i < total; i++) respondents[i] = bytes.readInt32BE(i * ANSWER_BYTES + 4);
  const order = orderOf(respondents);
  const ids = new Int32Array(total);
  const lengths = new Int32Array(total);
  const first = new Int32Array(total);
  const firsts = new Map<bigint, number>();
  const noAnswer = new Uint8Array(total);
  const slice = startTimeSlice();
  for (let i = 0; i < total; i++) {
    if (slice.isOver()) await slice.next();
    const at = order[i]! * ANSWER_BYTES;
    ids[i] = bytes.readInt32BE(at);
    const length = bytes.readInt32BE(at + 8);
    lengths[i] = length < 0 ? -1 - length : length;
    noAnswer[i] = length < 0 ? 1 : 0;
    const same = bytes.readBigInt64BE(at + 12);
    first[i] = firsts.get(same) ?? i;
    if (first[i] === i) firsts.set(same, i);
  }
  let texts: Promise<AnswerTexts> | null = null;
  const answers: QuestionAnswers = {
    ids,
    lengths,
    first,
    noAnswer,
    indexOf: indexIds(ids),
    texts: async (asking) => {
      if (lengths.reduce((sum, length) => sum + length, 0) > MOST_CHARACTERS) return null;
      texts ??= readTexts(asking, answers, 'question_id = :questionId', { questionId });
      texts.catch(() => {
        texts = null;
      });
      return texts;
    },
  };
  return answers;
}

/** Texts of some of the answers, as many at a time as may be read at once. */
export async function* textsInLots(
  em: EntityManager,
  answers: QuestionAnswers,
  indices: Int32Array,
): AsyncGenerator<AnswerTexts> {
  for (let from = 0, to = 0; from < indices.length; from = to) {
    let characters = 0;
    while (to < indices.length && (to === from || characters < MOST_CHARACTERS))
      characters += answers.lengths[indices[to++]!]!;
    const ids = Array.from(indices.subarray(from, to), (i) => answers.ids[i]!);
    yield readTexts(em, answers, 'id = any(:ids::int[])', { ids });
  }
}

async function readTexts(
  em: EntityManager,
  answers: QuestionAnswers,
  which: string,
  values: SqlValues,
): Promise<AnswerTexts> {
  const { packed, sizes } = await row<{ packed: Buffer | null; sizes: Buffer | null }>(
    em,
    // lower case in "C" is that of ASCII, byte for byte
    `select string_agg(convert_to(lower(text collate "C"), 'UTF8'), '') as packed,
       string_agg(int4send(id) || int4send(octet_length(text)) || int4send(length(text)), '') as sizes
     from response where ${which}`,
    values,
  );
  const each = unpackInts(sizes);
  const total = each.length / TEXT_INTS;
  const indices = new Int32Array(total);
  const starts = new Int32Array(total + 1);
  const isAscii = new Uint8Array(total);
  for (let t = 0; t < total; t++) {
    const [id, bytes, characters] = each.subarray(t * TEXT_INTS, (t + 1) * TEXT_INTS);
    indices[t] = answers.indexOf(id!);
    starts[t + 1] = starts[t]! + bytes!;
    isAscii[t] = bytes === characters ? 1 : 0;
  }
  return { indices, bytes: packed ?? Buffer.alloc(0), starts, isAscii };
}
