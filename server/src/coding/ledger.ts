import type { Ledger, LedgerQuery } from '@yellow-thread/contract';
import { codesMeetInLine, linesOf, type Cut } from '@yellow-thread/core/coding';
import { forEachIn } from '@yellow-thread/core/groups';
import { blankAsides } from '@yellow-thread/core/text';
import { drawnFor } from '@yellow-thread/core/statistics';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  CodeEntity,
  cutsAsJson,
  questionsInReview,
  row,
  rows,
  StudyEntity,
  unpackInts,
} from '../database/index.js';
import { problems } from '../wording/problems.js';
import { readMaterial, readPeople } from '../groups/index.js';
import type { Threads } from '../jobs/index.js';
import { distanceFromThreshold } from '../sampling/index.js';
import { vectorsOfTexts } from '../sentences/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { readQuestionAnswers, type QuestionAnswers } from './answerCache.js';
import { similarityOrder } from './similarityOrder.js';
import { asksInLine, conditionOf, type Condition, type LedgerReader } from './ledgerConditions.js';
import { orderOf } from './orderOf.js';
import { answersHolding } from './wordsInAnswers.js';

/** Which answers to a question there are of a kind, in the order asked for. */
export async function readLedger(
  em: EntityManager,
  threads: Threads,
  reader: LedgerReader,
  query: LedgerQuery,
): Promise<Ledger> {
  const { studyId, questionId } = reader;
  const answers = await readQuestionAnswers(em, questionId);
  const chosen = await choose(em, reader, answers, query);
  const places = await placesIn(em, questionId, answers, query);
  const ordered = places ? inOrder(chosen, places) : chosen;
  const isJoined = query.same === 'joined' && query.show !== 'no_answer';
  const ledger = listed(answers, ordered, isJoined);
  if (query.order === 'similar') return bySimilarity(em, threads, studyId, ledger);
  return query.order === 'resembling' && query.code
    ? byResemblance(em, threads, { studyId, questionId, codeId: query.code }, ledger)
    : ledger;
}

/** Ids of the answers that a filter chooses, each for itself. */
export async function chosenAnswers(
  em: EntityManager,
  studyId: number,
  questionId: number,
  query: LedgerQuery,
): Promise<number[]> {
  const answers = await readQuestionAnswers(em, questionId);
  const reader = { studyId, questionId, accountId: null };
  const chosen = await choose(em, reader, answers, query);
  return Array.from(chosen, (i) => answers.ids[i]!);
}

/** Where the answers that a filter chooses stand among those of their question, in their order. */
async function choose(
  em: EntityManager,
  reader: LedgerReader,
  answers: QuestionAnswers,
  query: LedgerQuery,
): Promise<Int32Array> {
  const { studyId, questionId } = reader;
  const where = await conditionOf(em, reader, query);
  const isChosen = new Uint8Array(answers.ids.length);
  if (where)
    for (const id of await idsOf(em, studyId, where, query)) {
      const i = answers.indexOf(id);
      if (i >= 0) isChosen[i] = 1;
    }
  else for (let i = 0; i < isChosen.length; i++) isChosen[i] = answers.noAnswer[i] ? 0 : 1;
  if (query.show === 'open') await leaveOutDecided(em, { studyId, questionId, answers, isChosen });
  const chosen = indicesOf(isChosen);
  return query.words.trim() === ''
    ? chosen
    : answersHolding(em, { studyId, answers, chosen, query });
}

/** Answers whose codes are decided one by one are not open, although nobody settled them. */
async function leaveOutDecided(
  em: EntityManager,
  {
    studyId,
    questionId,
    answers,
    isChosen,
  }: { studyId: number; questionId: number; answers: QuestionAnswers; isChosen: Uint8Array },
): Promise<void> {
  if (!(await questionsInReview(em, studyId)).includes(questionId)) return;
  const people = await readPeople(em, studyId);
  const { decided, responseOf } = await readMaterial(em, people, questionId);
  forEachIn(decided, (i) => {
    const at = answers.indexOf(responseOf[i]!);
    if (at >= 0) isChosen[at] = 0;
  });
}

function indicesOf(marks: Uint8Array): Int32Array {
  const indices = new Int32Array(marks.length);
  let count = 0;
  for (let i = 0; i < marks.length; i++) if (marks[i]) indices[count++] = i;
  return indices.subarray(0, count);
}

async function idsOf(
  em: EntityManager,
  studyId: number,
  where: Condition,
  query: LedgerQuery,
): Promise<Iterable<number>> {
  if (asksInLine(query)) return fittingInLines(em, studyId, where, query);
  const { packed } = await row<{ packed: Buffer | null }>(
    em,
    `select string_agg(int4send(r.id), '') as packed from response r where ${where.sql}`,
    where.values,
  );
  return unpackInts(packed);
}

/** Ids of answers in which the codes asked for meet in one line. */
async function fittingInLines(
  em: EntityManager,
  studyId: number,
  where: Condition,
  { all, any, none }: LedgerQuery,
): Promise<number[]> {
  const candidates = await rows<{
    id: number;
    text: string;
    mentions: { codeId: string; start: number | null; end: number | null }[] | null;
    cuts: Cut[] | null;
  }>(
    em,
    `select r.id, r.text, ${cutsAsJson} as cuts,
       (select jsonb_agg(jsonb_build_object('codeId', m.code_id, 'start', m.start, 'end', m."end"))
         from mention m where m.response_id = r.id) as mentions
     from response r where ${where.sql}`,
    where.values,
  );
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  return candidates
    .filter(({ text, mentions, cuts }) =>
      codesMeetInLine(
        mentions ?? [],
        linesOf(text, asides, cuts ?? []).filter((line) => !line.isAside),
        { all, any, none },
      ),
    )
    .map(({ id }) => id);
}

/** By what the answers are put in order, the least first; null where they stay as they came. */
async function placesIn(
  em: EntityManager,
  questionId: number,
  { ids, indexOf, lengths }: QuestionAnswers,
  { order, seed }: LedgerQuery,
): Promise<Float64Array | null> {
  const whole = (placeOf: (i: number) => number) => {
    const places = new Float64Array(ids.length);
    for (let i = 0; i < ids.length; i++) places[i] = placeOf(i);
    return places;
  };
  switch (order) {
    case 'imported':
    case 'similar':
      return null;
    case 'random':
      return whole((i) => drawnFor(ids[i]!, seed));
    case 'longest':
      return whole((i) => -lengths[i]!);
    case 'shortest':
      return whole((i) => lengths[i]!);
    case 'resembling':
      return null;
    case 'telling':
    case 'surest':
    case 'likely': {
      // the nearer to some code's line, the more a decision teaches; what no model looked at comes last
      const asked = {
        telling: `select response_id, distance as place from (${distanceFromThreshold(questionId)}) d`,
        // of what has no suggestion the models are most certain: that no code applies
        surest: `select response_id, 1 - distance as place from (${distanceFromThreshold(questionId)}) d`,
        likely: `select s.response_id, -max(s.probability) as place
          from suggestion s join code c on c.id = s.code_id
          where s.question_id = ${questionId} and s.state = 'open' group by s.response_id`,
      };
      const { packed } = await row<{ packed: Buffer | null }>(
        em,
        `select string_agg(int4send(response_id) || int4send((1e9 * place)::int), '') as packed
         from (${asked[order]}) t`,
      );
      const places = whole(() => (order === 'surest' ? 0 : 1e9));
      const found = unpackInts(packed);
      for (let n = 0; n < found.length; n += 2) {
        const i = indexOf(found[n]!);
        if (i >= 0) places[i] = found[n + 1]!;
      }
      return places;
    }
  }
}

function inOrder(chosen: Int32Array, places: Float64Array): Int32Array {
  const its = new Float64Array(chosen.length);
  for (let n = 0; n < chosen.length; n++) its[n] = places[chosen[n]!]!;
  return orderOf(its).map((n) => chosen[n]!);
}

/** @param isJoined whether answers with the same words stand as one, in the place of the first of them */
function listed(answers: QuestionAnswers, ordered: Int32Array, isJoined: boolean): Ledger {
  const total = ordered.length;
  if (!isJoined)
    return {
      ids: Array.from(ordered, (i) => answers.ids[i]!),
      counts: null,
      near: null,
      total,
    };
  const ids: number[] = [];
  const counts: number[] = [];
  /** By the first answer of the same words: how many there are, listed or not, since all of them are coded as one. */
  const sizes = new Int32Array(answers.ids.length);
  answers.first.forEach((first, i) => {
    if (!answers.noAnswer[i]) sizes[first]! += 1;
  });
  /** By the first answer of the same words: which row they have, counted from 1. */
  const rowOf = new Int32Array(answers.ids.length);
  for (const i of ordered) {
    const first = answers.first[i]!;
    if (rowOf[first] === 0) {
      rowOf[first] = ids.push(answers.ids[i]!);
      counts.push(answers.noAnswer[i] ? 1 : sizes[first]!);
    } else if (answers.noAnswer[i]) counts[rowOf[first]! - 1]! += 1;
  }
  return { ids, counts: counts.some((count) => count > 1) ? counts : null, near: null, total };
}

async function bySimilarity(
  em: EntityManager,
  threads: Threads,
  studyId: number,
  ledger: Ledger,
): Promise<Ledger> {
  const texts = await textsOf(em, studyId, ledger.ids);
  const { order, near } = await similarityOrder(em, threads, studyId, texts);
  return {
    ...reordered(ledger, order),
    near: order.flatMap((i, place) => (near[place] ? [ledger.ids[i]!] : [])),
  };
}

const reordered = (ledger: Ledger, order: readonly number[]): Ledger => ({
  ...ledger,
  ids: order.map((i) => ledger.ids[i]!),
  counts: ledger.counts && order.map((i) => ledger.counts![i]!),
});

/** What respondents said in some answers, without what the interviewer did. */
async function textsOf(
  em: EntityManager,
  studyId: number,
  ids: readonly number[],
): Promise<string[]> {
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const texts = await rows<{ text: string }>(
    em,
    `select r.text from unnest(:ids::int[]) with ordinality as wanted (id, place)
     join response r on r.id = wanted.id order by wanted.place`,
    { ids },
  );
  const said: string[] = [];
  const slice = startTimeSlice();
  for (const { text } of texts) {
    said.push(blankAsides(text, asides));
    if (slice.isOver()) await slice.next();
  }
  return said;
}

/** Examples of a code that answers are compared with. */
const MOST_EXAMPLES = 50;

/** What is most like a code's words and the answers that mention it comes first: a search for one without a model. */
async function byResemblance(
  em: EntityManager,
  threads: Threads,
  { studyId, questionId, codeId }: { studyId: number; questionId: number; codeId: string },
  ledger: Ledger,
): Promise<Ledger> {
  const code = await em.findOne(CodeEntity, { id: codeId, studyId });
  if (!code) throw problems.notFound('code');
  const examples = await rows<{ text: string; start: number | null; end: number | null }>(
    em,
    `select r.text, m.start, m."end" from mention m join response r on r.id = m.response_id
     where r.question_id = :questionId and m.code_id = :codeId order by m.typical desc, m.created_at desc
     limit ${MOST_EXAMPLES}`,
    { questionId, codeId },
  );
  const { name, definition, include } = code;
  const texts = await textsOf(em, studyId, ledger.ids);
  const these = [
    [name, definition, include].join('. '),
    ...examples.map(({ text, start, end }) => text.slice(start ?? 0, end ?? text.length)),
  ];
  const vectors = await vectorsOfTexts(em, studyId, texts);
  const likeness = await threads.run('alikeTo', { texts, vectors, unread: these, these });
  return reordered(
    ledger,
    Array.from(orderOf(Float64Array.from(likeness, (one) => Math.round(1e9 * (1 - one))))),
  );
}
