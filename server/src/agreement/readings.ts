import { randomInt } from 'node:crypto';
import type {
  SecondCoding,
  ListedReading,
  ReadingAnswers,
  ReadingCreate,
  ReadingList,
  SecondReading,
} from '@yellow-thread/contract';
import { simpleRandomSample } from '@yellow-thread/core/sampling';
import { LockMode, type EntityManager } from '@mikro-orm/postgresql';
import {
  asRecord,
  findReadingAnswers,
  inChange,
  isoTime,
  makeChange,
  rows,
  SecondReadingEntity,
  type SqlValues,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { readingsTexts } from '../wording/agreement.js';

/** Settled answers of a question: a person decided their codes, and nothing was suggested to them. */
const settledAnswers = `from response r where r.question_id = :questionId and not r.no_answer
  and exists (select 1 from settlement t where t.response_id = r.id and not t.assisted)`;

/** The second readings of a question. @param readerId whose alone; null for everybody's */
export const listReadings = async (
  em: EntityManager,
  questionId: number,
  readerId: number | null,
): Promise<ReadingList> => ({
  readings: await findReadings(
    em,
    'd.question_id = :questionId and (:readerId::int is null or d.reader_id = :readerId::int)',
    { questionId, readerId },
  ),
});

/** @param where a condition on `second_reading d` */
export const findReadings = (
  em: EntityManager,
  where: string,
  values: SqlValues,
): Promise<ListedReading[]> =>
  rows(
    em,
    `select d.id, d.reader_id as "readerId", b.name as reader, d.drawn_from as "drawnFrom", d.drawn,
       ${isoTime('d.drawn_at')} as "drawnAt",
       (select count(*)::int from second_reading_answer a where a.reading_id = d.id) as size,
       (select count(*)::int from second_reading_answer a
         where a.reading_id = d.id and a.second_codes is not null) as read,
       (select coalesce(jsonb_agg(c.name order by c.name), '[]') from account c
         where d.first_coders @> to_jsonb(c.id)) as "firstCoders"
     from second_reading d join account b on b.id = d.reader_id
     where ${where}
       -- one whose answers went with an import that was taken back is none any more
       and exists (select 1 from second_reading_answer a where a.reading_id = d.id) order by d.drawn_at desc, d.id`,
    values,
  );

export async function findReading(
  em: EntityManager,
  questionId: number,
  id: string,
): Promise<ListedReading> {
  const [reading] = await findReadings(em, 'd.question_id = :questionId and d.id = :id', {
    questionId,
    id,
  });
  if (!reading) throw problems.notFound(readingsTexts.secondReading);
  return reading;
}

/**
 * Draws settled answers at random, to be coded once more; how they are coded now is kept beside them. Somebody else's
 * are drawn where there are any: one's own, coded again, show only how steady one is.
 *
 * @throws Problem nothing_to_read_again
 */
export async function drawReading(
  em: EntityManager,
  maker: Maker,
  questionId: number,
  { id, readerId, size, like }: ReadingCreate,
): Promise<void> {
  await inChange(em, async (tx) => {
    const [reader] = await rows<{ name: string }>(
      tx,
      `select a.name from account a join membership m on m.account_id = a.id
       where a.id = :readerId and m.study_id = :studyId and m.role <> 'reader'`,
      { readerId, studyId: maker.studyId },
    );
    if (!reader) throw problems.notFound('person');
    // the same request once more, since its answer was lost
    if ((await tx.count(SecondReadingEntity, { id })) > 0) return;
    const found = await rows<Candidate>(
      tx,
      `select r.id as "responseId",
         (select jsonb_agg(t.coder_id) from settlement t where t.response_id = r.id) as "settledBy",
         coalesce((select jsonb_agg(distinct m.code_id) from mention m where m.response_id = r.id), '[]')
           as "firstCodes"
       ${settledAnswers} and not exists (
         select 1 from second_reading_answer a join second_reading d on d.id = a.reading_id
         where a.response_id = r.id and d.reader_id = :readerId)
       order by r.id`,
      { questionId, readerId },
    );
    const drawn = like
      ? await sameAs(tx, questionId, like, found)
      : atRandom(found, size, readerId);
    if (drawn.answers.length === 0) throw problems.nothingToReadAgain(reader.name);
    const reading: SecondReading = {
      id,
      studyId: maker.studyId,
      questionId,
      readerId,
      firstCoders: drawn.by,
      drawnFrom: drawn.from,
      drawn: drawn.answers.length,
      drawnBy: maker.accountId,
      drawnAt: new Date().toISOString(),
    };
    await makeChange(tx, {
      ...maker,
      summary: readingsTexts.drawingSecondReading(drawn.answers.length, reader.name),
      diff: {
        second_reading: { added: [reading], updated: [], removed: [] },
        second_reading_answer: {
          added: drawn.answers.map(({ responseId, firstCodes }) => ({
            readingId: id,
            responseId,
            firstCodes,
            secondCodes: null,
            verdicts: {},
          })),
          updated: [],
          removed: [],
        },
      },
    });
  });
}

interface Candidate {
  responseId: number;
  settledBy: number[];
  firstCodes: string[];
}
interface Drawn {
  answers: Pick<Candidate, 'responseId' | 'firstCodes'>[];
  from: number;
  by: number[];
}

function atRandom(found: Candidate[], size: number, readerId: number): Drawn {
  const others = found.filter(({ settledBy }) => settledBy.some((coder) => coder !== readerId));
  const from = others.length > 0 ? others : found;
  const chosen = simpleRandomSample(from.length, Math.min(size, from.length), randomInt(2 ** 31));
  const answers = chosen.map((i) => from[i]!);
  const by = [...new Set(answers.flatMap(({ settledBy }) => settledBy))].filter(
    (coder) => others.length === 0 || coder !== readerId,
  );
  return { answers, from: from.length, by: by.sort((x, y) => x - y) };
}

/** The answers of another reading, with the first codes that it had: so all compare with the same ones. */
async function sameAs(
  em: EntityManager,
  questionId: number,
  like: string,
  found: Candidate[],
): Promise<Drawn> {
  const { drawnFrom } = await findReading(em, questionId, like);
  const { firstCoders } = await findRecord(em, like);
  const free = new Set(found.map(({ responseId }) => responseId));
  const answers = await findReadingAnswers(em, 'd.id = :like', { like });
  return {
    answers: answers.filter(({ responseId }) => free.has(responseId)),
    from: drawnFrom,
    by: firstCoders,
  };
}

/** The record of a reading, locked until the change is made. */
async function findRecord(em: EntityManager, id: string): Promise<SecondReading> {
  const lock = { lockMode: LockMode.PESSIMISTIC_WRITE };
  return asRecord('second_reading', await em.findOneOrFail(SecondReadingEntity, { id }, lock));
}

/** The answers of a reading for its reader: without how they were coded. @throws Problem not_your_reading */
export async function readReading(
  em: EntityManager,
  { accountId }: Maker,
  questionId: number,
  id: string,
): Promise<ReadingAnswers> {
  const reading = await findReading(em, questionId, id);
  if (reading.readerId !== accountId) throw problems.notYourReading(reading.reader);
  const answers = await rows<ReadingAnswers['answers'][number]>(
    em,
    `select r.id as "responseId", p.external_id as "externalId", r.text, a.second_codes as codes
     from second_reading_answer a join response r on r.id = a.response_id
     join respondent p on p.id = r.respondent_id
     where a.reading_id = :id order by md5(a.reading_id::text || a.response_id)`,
    { id },
  );
  return { answers };
}

/**
 * Keeps what the reader gave an answer, apart from the coding.
 *
 * @throws Problem not_your_reading, reading_done
 */
export async function codeSecondReading(
  em: EntityManager,
  {
    maker,
    questionId,
    id,
    coding: { responseId, codes },
  }: { maker: Maker; questionId: number; id: string; coding: SecondCoding },
): Promise<void> {
  await inChange(em, async (tx) => {
    const { readerId, reader, read, size } = await findReading(tx, questionId, id);
    if (readerId !== maker.accountId) throw problems.notYourReading(reader);
    const [from] = await findReadingAnswers(tx, 'd.id = :id and a.response_id = :responseId', {
      id,
      responseId,
    });
    if (!from) throw problems.notFound(readingsTexts.answerReading);
    const secondCodes = [...new Set(codes)];
    // the last one, sent a second time
    if (JSON.stringify(from.secondCodes) === JSON.stringify(secondCodes)) return;
    if (read === size) throw problems.readingDone();
    const known = await rows(
      tx,
      'select 1 from code where study_id = :studyId and id = any(:secondCodes::uuid[]) for share',
      { studyId: maker.studyId, secondCodes },
    );
    if (known.length < secondCodes.length) throw problems.notFound('code');
    await makeChange(tx, {
      ...maker,
      summary: readingsTexts.secondReadingAnswer,
      diff: {
        second_reading_answer: {
          added: [],
          updated: [{ from, to: { ...from, secondCodes } }],
          removed: [],
        },
      },
    });
  });
}

/** Leaves out of a reading what is not coded yet, so that the rest can be compared; one without any is removed. */
export async function endReading(
  em: EntityManager,
  maker: Maker,
  questionId: number,
  id: string,
): Promise<void> {
  await inChange(em, async (tx) => {
    const { reader } = await findReading(tx, questionId, id);
    const answers = await findReadingAnswers(tx, 'd.id = :id', { id });
    const unread = answers.filter(({ secondCodes }) => secondCodes === null);
    if (unread.length === 0) return;
    if (unread.length === answers.length) return removeReading(tx, maker, questionId, id);
    await makeChange(tx, {
      ...maker,
      summary: readingsTexts.endingSecondReadingEarly(reader),
      diff: { second_reading_answer: { added: [], updated: [], removed: unread } },
    });
  });
}

/** Takes a second reading away with all that was coded in it. */
export async function removeReading(
  em: EntityManager,
  maker: Maker,
  questionId: number,
  id: string,
): Promise<void> {
  await inChange(em, async (tx) => {
    const { reader } = await findReading(tx, questionId, id);
    const reading = await findRecord(tx, id);
    await makeChange(tx, {
      ...maker,
      summary: readingsTexts.removingSecondReading(reader),
      diff: {
        second_reading: { added: [], updated: [], removed: [reading] },
        second_reading_answer: {
          added: [],
          updated: [],
          removed: await findReadingAnswers(tx, 'd.id = :id', { id }),
        },
      },
    });
  });
}
